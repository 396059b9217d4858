import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwind()],
  worker: { format: 'es' },
  // HarfBuzz asks for Node's module where it runs in Node; in a browser it never does.
  resolve: { alias: { module: fileURLToPath(new URL('src/app/noModule.ts', import.meta.url)) } },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
});
