import { defineConfig } from 'vite';

/** The command as one bundle that starts at once; what only some calls need stays apart and is loaded by them. */
export default defineConfig({
  root: import.meta.dirname,
  build: {
    ssr: 'src/main.ts',
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    minify: true,
    rollupOptions: { output: { entryFileNames: 'hem.js' } },
  },
  ssr: {
    noExternal: true,
    // These find their WebAssembly beside themselves.
    external: ['draco3dgltf', 'meshoptimizer'],
  },
});
