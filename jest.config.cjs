const transform = {
  '^.+\\.(t|j|mj)sx?$': [
    '<rootDir>/scripts/jestTransform.cjs',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true, decorators: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' }, useDefineForClassFields: false },
      },
      module: { type: 'commonjs' },
    },
  ],
};
const base = {
  transform,
  testEnvironment: 'node',
  extensionsToTreatAsEsm: [],
  transformIgnorePatterns: [
    '/node_modules/(?!@crow/|content-disposition/|light-my-request/|cookie/|@fastify/cookie/|@tus/|srvx/)',
  ],
};

module.exports = {
  projects: [
    {
      ...base,
      displayName: 'unit',
      testMatch: [
        '<rootDir>/{core,contract,web}/**/*.test.ts',
        '<rootDir>/{server/engines,server/devices,standins}/**/*.test.ts',
      ],
    },
    {
      ...base,
      displayName: 'screens',
      testEnvironment: 'jsdom',
      testMatch: ['<rootDir>/web/**/*.test.tsx'],
      setupFiles: ['<rootDir>/web/src/testing/missing.ts'],
    },
    {
      ...base,
      displayName: 'integration',
      // Whatever needs the database.
      testMatch: [
        '<rootDir>/server/!(engines|devices)/**/*.test.ts',
        '<rootDir>/server/*.test.ts',
        '<rootDir>/demo/**/*.test.ts',
      ],
      globalSetup: '<rootDir>/server/testing/startPostgres.ts',
      globalTeardown: '<rootDir>/server/testing/stopPostgres.ts',
    },
    {
      ...base,
      displayName: 'e2e',
      testMatch: ['<rootDir>/e2e/**/*.test.ts'],
      setupFilesAfterEnv: ['<rootDir>/e2e/allTests.ts'],
    },
  ],
  // What takes longer hangs.
  testTimeout: 120_000,
};
