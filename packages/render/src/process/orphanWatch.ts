/** A thread that ends its process once the process that started it is gone. */
import { workerData } from 'node:worker_threads';

const LOOK_EVERY_MS = 500;

setInterval(() => {
  if (process.ppid !== (workerData as number)) process.kill(process.pid, 'SIGKILL');
}, LOOK_EVERY_MS);
