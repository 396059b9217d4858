// npm run dev: the server restarts and the pages reload as their sources change.
import { spawn } from 'node:child_process';
import { watch } from 'node:fs';
import { bundle } from './bundle.mjs';
import { install, layOutDatabase } from './steps.mjs';

install();
await bundle();
await layOutDatabase();

const PORT = process.env.KITE_PORT ?? '4820';
let server;
const start = () => {
  server = spawn(process.execPath, ['--enable-source-maps', 'dist/server.mjs', '--port', PORT], { stdio: 'inherit' });
};
start();

let timer;
const restart = () => {
  clearTimeout(timer);
  timer = setTimeout(async () => {
    try {
      await bundle();
    } catch {
      return; // esbuild has said why; the running server stays.
    }
    server.once('exit', start);
    server.kill('SIGTERM');
  }, 150);
};
for (const folder of ['apps/server/src', 'packages', 'demo/src']) watch(folder, { recursive: true }, restart);

const { createServer } = await import('vite');
const vite = await createServer({
  root: 'apps/web',
  configFile: 'apps/web/vite.config.ts',
  server: { proxy: { '/api': { target: `http://127.0.0.1:${PORT}` } } },
});
await vite.listen();
vite.printUrls();
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, async () => {
    server.removeAllListeners('exit');
    server.kill('SIGTERM');
    await vite.close();
    process.exit(0);
  });
}
