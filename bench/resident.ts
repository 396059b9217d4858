/** The memory that processes hold. */
import { readFileSync } from 'node:fs';

/** In MiB; `NaN` of a process that is gone. */
export const residentMiB = (pid: number | undefined): number => {
  try {
    const kilobytes = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
    return Math.round(Number(kilobytes) / 1024);
  } catch {
    return NaN;
  }
};

/** The processes that this one started, by a part of their command. */
export const started = (command: string): number[] =>
  readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8')
    .split(' ')
    .filter((pid) => pid !== '' && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(command))
    .map(Number);
