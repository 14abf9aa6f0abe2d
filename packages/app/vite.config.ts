import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { serviceWorker } from './serviceWorker.ts';

/** Shared memory, which stops a solver at once, needs the page to be isolated from other origins. */
const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    serviceWorker(),
    // The server hands these out as they are: nothing is compressed while somebody waits.
    compression({
      include: /\.(js|css|wasm|svg)$/,
      threshold: 1024,
      algorithms: [defineAlgorithm('brotliCompress'), defineAlgorithm('gzip')],
    }),
  ],
  worker: { format: 'es' },
  server: { host: '127.0.0.1', headers: isolation },
  build: {
    target: 'es2022',
    outDir: 'dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 2500,
  },
});
