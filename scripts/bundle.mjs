/** How what runs on Node.js is bundled: the project's own workspaces into one, everything else stays in node_modules. */
export const forNode = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  // Node.js 20 knows them; esbuild, unsure which letters it knows, would make each such expression anew whenever it is come to.
  supported: { 'regexp-unicode-property-escapes': true },
  sourcemap: true,
  splitting: true,
  logLevel: 'warning',
  tsconfig: 'tsconfig.json',
  plugins: [
    {
      name: 'packages-outside',
      setup(it) {
        it.onResolve({ filter: /^[^./]/ }, ({ path }) => (path.startsWith('@crow/') ? null : { external: true }));
      },
    },
  ],
};
