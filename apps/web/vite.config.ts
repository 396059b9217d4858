import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { fetchedAhead, parts, sharedWorker } from './parts.ts';

export default defineConfig({
  plugins: [react(), tailwind(), sharedWorker()],
  worker: { format: 'es' },
  // HarfBuzz asks for Node's module where it runs in Node; in a browser it never does.
  resolve: { alias: { module: fileURLToPath(new URL('src/app/noModule.ts', import.meta.url)) } },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    modulePreload: { resolveDependencies: fetchedAhead },
    rolldownOptions: { output: { codeSplitting: parts() } },
  },
});
