import { join } from 'node:path';
import importX from 'eslint-plugin-import-x';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import globals from 'globals';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** What a workspace may not import: imports go one way, web and server → contract → core. */
const oneWay = {
  core: [
    '@crow/contract',
    '@crow/server',
    '@crow/web',
    '@crow/demo',
    '@crow/e2e',
    'node:*',
    'fs',
    'path',
    'typeorm',
    'fastify',
    'react',
    'sharp',
  ],
  contract: ['@crow/server', '@crow/web', '@crow/demo', '@crow/e2e', 'node:*', 'typeorm', 'fastify', 'react'],
  server: ['@crow/web', '@crow/e2e', 'react'],
  web: ['@crow/server', '@crow/demo', '@crow/e2e', 'node:*', 'typeorm', 'fastify', 'sharp'],
};

/** Each declares what it uses. */
const WORKSPACES = ['core', 'contract', 'server', 'web', 'demo', 'standins', 'e2e', 'bench'];

/**
 * The rooms of the server in the order of the work: each knows those before it, never those after it, which hear of what happens
 * through server/platform/happenings.ts. What assembles them (the files right in server, and its command line) knows them all.
 */
const ROOMS = [
  'engines',
  'devices',
  'platform',
  'stack',
  'capture',
  'pages',
  'sorting',
  'reading',
  'checking',
  'shelf',
  'finding',
  'ledger',
  'keeping',
  'sending',
  'people',
];
const ASSEMBLY = ['app', 'assembly', 'general', 'handlers', 'queries', 'server', 'worker', 'cli/*'];

/** How a statement begins. */
const SQL =
  '/^\\s*(select\\s.*\\sfrom\\s|insert into\\s|update \\w+ set\\s|delete from\\s|with (recursive )?\\w+ as )/is';

const outside = (forbidden) => ({
  group: forbidden.flatMap((name) => (name.includes('*') ? [name] : [name, `${name}/*`])),
  message: 'Imports go one way: web and server → contract → core.',
});

export default tseslint.config(
  { ignores: ['**/node_modules/**', '.crow/**', 'core/imaging/kernels/assembly/**'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [importX.createNodeResolver({ extensions: ['.ts', '.tsx', '.js', '.mjs'] })],
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
    },
  },
  {
    languageOptions: { globals: { ...globals.node } },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'none' },
      ],
      '@typescript-eslint/consistent-type-imports': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
    },
  },
  ...Object.entries(oneWay).map(([workspace, forbidden]) => ({
    files: [`${workspace}/**/*.{ts,tsx}`],
    ignores: ['**/*.test.ts', '**/*.test.tsx', '**/testing/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [outside(forbidden)],
        },
      ],
    },
  })),
  ...WORKSPACES.map((workspace) => ({
    files: [`${workspace}/**/*.{ts,tsx}`],
    rules: {
      'import-x/no-extraneous-dependencies': ['error', { packageDir: join(import.meta.dirname, workspace) }],
    },
  })),
  ...ROOMS.map((room, at) => ({
    files: [`server/${room}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            outside(oneWay.server),
            {
              group: [...ROOMS.slice(at + 1).map((later) => `${later}/*`), ...ASSEMBLY].flatMap((later) => [
                `../${later}`,
                `../../${later}`,
              ]),
              message: 'A room knows those before it in the order of the work, never those after it.',
            },
            {
              group: ROOMS.filter((other) => ![room, 'platform', 'stack'].includes(other)).map(
                (other) => `../${other}/*ueries`,
              ),
              message: 'A room calls the services of another, not its queries.',
            },
          ],
        },
      ],
    },
  })),
  {
    files: ['server/**/*.ts'],
    ignores: [
      '**/{queries,*Queries}.ts',
      'server/platform/database.ts',
      'server/platform/migrations/**',
      'server/cli/cluster.ts',
      '**/*.test.ts',
      '**/testing/**',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          "CallExpression[callee.property.name='query'][arguments.length>0]",
          "ImportSpecifier[imported.name='rows']",
          `:matches(Literal[value=${SQL}], TemplateElement[value.raw=${SQL}])`,
        ].map((selector) => ({ selector, message: 'SQL stands in the queries file of its room.' })),
      ],
    },
  },
  {
    files: ['server/platform/migrations/*-*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['@crow/*', './*', '../*'],
              message: 'A migration is frozen: it is made of nothing that changes.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Buffer', 'fetch'],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'The core is told the date.' },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'The core is told the randomness.',
        },
      ],
    },
  },
  { files: ['web/**/*.tsx'], ...jsxA11y.flatConfigs.recommended },
  {
    files: ['web/**/*.tsx'],
    rules: {
      // Only what a person has just opened to write in has it.
      'jsx-a11y/no-autofocus': 'off',
      'jsx-a11y/no-noninteractive-tabindex': ['error', { tags: [], roles: ['tabpanel', 'region', 'application'] }],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    languageOptions: { globals: { ...globals.browser } },
    rules: {
      ...reactHooks.configs.recommended.rules,
      // Warns of libraries that React's compiler can't handle; it isn't used here.
      'react-hooks/incompatible-library': 'off',
    },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  { files: ['scripts/**', 'bench/**', 'server/cli/**', 'demo/**'], rules: { 'no-console': 'off' } },
);
