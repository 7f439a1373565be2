import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [react()],
  build: { outDir: '../dist/web', emptyOutDir: true, chunkSizeWarningLimit: 1500 },
  worker: { format: 'es' },
  server: {
    proxy: Object.fromEntries(
      ['/api', '/see', '/embed', '/feed', '/copy', '/outside'].map((path) => [path, 'http://127.0.0.1:4310']),
    ),
  },
});
