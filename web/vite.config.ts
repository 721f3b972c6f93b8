import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** So large a piece of the application may be to be kept ready on a device, in bytes. */
const LARGEST_KEPT = 4 * 1024 * 1024;

export default defineConfig({
  root: 'web',
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      // main.tsx does it, once there is nothing else to do.
      injectRegister: false,
      // The session's cookie goes with everything that is asked here.
      useCredentials: true,
      injectManifest: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2,wasm}'],
        maximumFileSizeToCacheInBytes: LARGEST_KEPT,
      },
      manifest: {
        id: '/',
        name: 'Crow Shelf',
        short_name: 'Crow Shelf',
        description: 'From a pile of paper to searchable PDFs in named folders, on your own machine',
        start_url: '/start',
        scope: '/',
        display: 'standalone',
        background_color: '#f4f1ea',
        theme_color: '#e9e5db',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon-maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
        shortcuts: [
          { name: 'Photograph papers', url: '/capture?source=camera' },
          { name: 'Check', url: '/check' },
          { name: 'Find', url: '/shelf?find=' },
        ],
        share_target: {
          action: '/share',
          method: 'POST',
          enctype: 'multipart/form-data',
          params: { files: [{ name: 'files', accept: ['image/*', 'application/pdf'] }] },
        },
      },
    }),
  ],
  build: { outDir: '../.crow/build/web', emptyOutDir: true, chunkSizeWarningLimit: 800 },
});
