// Bundles the server, the worker and the command line with esbuild, and the web application with Vite, into .crow/build.
import { build } from 'esbuild';
import { build as buildWeb } from 'vite';

const shared = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  splitting: true,
  logLevel: 'warning',
  tsconfig: 'tsconfig.json',
  plugins: [
    {
      // Everything but the project's own workspaces stays in node_modules.
      name: 'packages-outside',
      setup(it) {
        it.onResolve({ filter: /^[^./]/ }, ({ path }) => (path.startsWith('@crow/') ? null : { external: true }));
      },
    },
  ],
};

await Promise.all([
  build({
    ...shared,
    entryPoints: { crow: 'server/cli/crow.ts', server: 'server/server.ts', worker: 'server/worker.ts' },
    outdir: '.crow/build/node',
    outExtension: { '.js': '.mjs' },
  }),
  buildWeb({ configFile: 'web/vite.config.ts', logLevel: 'warn' }),
]);
