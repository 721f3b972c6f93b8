// Bundles the server, the worker and the command line with esbuild, and the web application with Vite, into .crow/build.
import { build } from 'esbuild';
import { build as buildWeb } from 'vite';
import { forNode } from './bundle.mjs';

await Promise.all([
  build({
    ...forNode,
    entryPoints: { crow: 'server/cli/crow.ts', server: 'server/server.ts', worker: 'server/worker.ts' },
    outdir: '.crow/build/node',
    outExtension: { '.js': '.mjs' },
  }),
  buildWeb({ configFile: 'web/vite.config.ts', logLevel: 'warn' }),
]);
