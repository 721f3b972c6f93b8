// @swc/jest, with the built-in names that hot loops use bound in each module: looked up through Jest's sandbox, every
// Math.floor costs a hundred times what it should.
const { createTransformer } = require('@swc/jest');

const NAMES = [
  'Math',
  'Number',
  'Array',
  'Uint8Array',
  'Uint8ClampedArray',
  'Int32Array',
  'Float32Array',
  'Float64Array',
];
const BOUND = NAMES.map((name) => `var ${name} = globalThis.${name};`).join('');

module.exports = {
  createTransformer(options) {
    const inner = createTransformer(options);
    return {
      ...inner,
      process(source, path, settings) {
        const result = inner.process(source, path, settings);
        return /\/(core|demo|standins)\//.test(path) ? { ...result, code: BOUND + result.code } : result;
      },
    };
  },
};
