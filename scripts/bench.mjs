// Runs a bench: node scripts/bench.mjs NAME [arguments]. Bundled first, as the program itself is.
import { spawnSync } from 'node:child_process';
import { build } from 'esbuild';
import { forNode } from './bundle.mjs';

const [name, ...rest] = process.argv.slice(2);
await build({
  ...forNode,
  entryPoints: { [name]: `bench/${name}.ts` },
  outdir: '.crow/build/bench',
  outExtension: { '.js': '.mjs' },
});
process.exit(
  spawnSync('node', ['--enable-source-maps', `.crow/build/bench/${name}.mjs`, ...rest], { stdio: 'inherit' }).status ??
    1,
);
