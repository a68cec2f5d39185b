import { defineConfig } from 'vite';

// Bundles the server with the core in it; everything from the registry stays where npm put it.
export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rollupOptions: {
      input: { main: 'src/main.ts', worker: 'src/compute/worker.ts', backup: 'src/backup/main.ts' },
      output: { entryFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: [/^@nibrel\//] },
});
