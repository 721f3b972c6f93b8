declare module 'libheif-js/wasm-bundle.js';
