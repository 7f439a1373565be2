import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

/** `npm run dev` says where its server listens. */
const SERVER = process.env['SERVER_URL'] ?? 'http://127.0.0.1:4310';

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [react()],
  build: { outDir: '../dist/web', emptyOutDir: true, chunkSizeWarningLimit: 1500 },
  worker: { format: 'es' },
  server: {
    proxy: Object.fromEntries(
      ['/api', '/see', '/embed', '/feed', '/copy', '/links', '/board', '/outside'].map((path) => [
        path,
        SERVER,
      ]),
    ),
  },
});
