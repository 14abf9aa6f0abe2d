import { defineConfig } from 'vite';

/** The command as one bundle that starts at once; what only some calls need stays apart and is loaded by them. */
export default defineConfig({
  root: import.meta.dirname,
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    minify: true,
    rollupOptions: {
      input: { hem: 'src/main.ts', jobThread: 'src/threads/jobThread.ts' },
      // All beside one another: the thread is found from the part that starts it.
      output: { entryFileNames: '[name].js', chunkFileNames: '[name]-[hash].js' },
    },
  },
  ssr: {
    noExternal: true,
    // These find their WebAssembly, or the code of their threads, beside themselves.
    external: ['draco3dgltf', 'meshoptimizer', 'piscina'],
  },
});
