import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** Shared memory, which stops a solver at once, needs the page to be isolated from other origins. */
const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
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
