// Compiles the line reader, bundles the server, the worker and the command line with esbuild, and the web application with Vite, into .crow/build; and
// has what the stand-in camera sees drawn, which takes a while and is done again only when the demo papers have changed.
import { createHash } from 'node:crypto';
import { cpSync, existsSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { build as buildWeb } from 'vite';
import { forNode } from './bundle.mjs';
import { compileLineReader } from './native.mjs';

// Whoever builds, tests included: what is built for one is what everybody gets.
process.env.NODE_ENV = 'production';

async function drawStandIn() {
  const hash = createHash('sha256');
  for (const name of readdirSync('demo').sort()) if (name.endsWith('.ts')) hash.update(readFileSync(`demo/${name}`));
  const folder = `.crow/stand-in/${hash.digest('hex').slice(0, 16)}`;
  if (existsSync(folder)) return folder;
  rmSync('.crow/stand-in', { recursive: true, force: true });
  const outfile = '.crow/build/standIn.mjs';
  await build({ ...forNode, splitting: false, entryPoints: ['demo/standIn.ts'], outfile });
  const { drawStandIn: draw } = await import(pathToFileURL(outfile));
  await draw(`${folder}.new`);
  renameSync(`${folder}.new`, folder);
  return folder;
}

compileLineReader();
const [standIn] = await Promise.all([
  drawStandIn(),
  build({
    ...forNode,
    entryPoints: {
      crow: 'server/cli/crow.ts',
      server: 'server/server.ts',
      worker: 'server/worker.ts',
      heavyThread: 'server/heavyThread.ts',
      scanner: 'standins/scanner/main.ts',
      mail: 'standins/mail/main.ts',
    },
    outdir: '.crow/build/node',
    outExtension: { '.js': '.mjs' },
  }),
  buildWeb({ configFile: 'web/vite.config.ts', logLevel: 'warn' }),
]);
cpSync(standIn, '.crow/build/web/stand-in', { recursive: true });
