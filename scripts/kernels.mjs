// Compiles core/imaging/kernels/assembly to WebAssembly with SIMD, and writes it down as text that server and browser load alike. The text is
// kept with the sources, so that nothing has to be compiled to use it; a test compiles again and compares.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import asc from 'assemblyscript/asc';

/** @returns the compiled module, in base64 */
export async function compileKernels(root = '.') {
  const { error, stdout, stderr, binary } = await new Promise((resolve) => {
    const files = {};
    void asc
      .main(
        [
          join(root, 'core/imaging/kernels/assembly/index.ts'),
          '--outFile',
          'pixels.wasm',
          '--enable',
          'simd',
          '--runtime',
          'stub',
          '--noAssert',
          '-O3',
          '--converge',
          '--use',
          'abort=',
        ],
        { writeFile: (name, contents) => void (files[name] = contents) },
      )
      .then((result) => resolve({ ...result, binary: files['pixels.wasm'] }));
  });
  if (error) throw new Error(`${error.message}\n${stdout}\n${stderr}`);
  return Buffer.from(binary).toString('base64');
}

if (process.argv[1]?.endsWith('kernels.mjs')) {
  const text = await compileKernels();
  const lines = text.match(/.{1,112}/g).map((line) => `  '${line}'`);
  writeFileSync(
    'core/imaging/kernels/pixelsWasm.ts',
    `/** \`assembly/pixels.ts\`, compiled by \`npm run kernels\`: WebAssembly in base64. */\nexport const PIXELS =\n${lines.join(' +\n')};\n`,
  );
  console.log(`${Math.round((text.length * 3) / 4)} bytes`);
}
