/** One server to a data folder: PGlite has no lock of its own, and a second opening would lose data. */
import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BadConfig } from './config';

interface Holder {
  readonly pid: number;
  /** When the process started, as Linux tells; '' elsewhere. A pid that came round again has another. */
  readonly born: string;
}

const bornOf = (pid: number): string => {
  try {
    // proc(5): field 22 is the start time; the command in field 2 may hold spaces and brackets.
    const text = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return text.slice(text.lastIndexOf(')') + 2).split(' ')[19] ?? '';
  } catch {
    return '';
  }
};

const lives = ({ pid, born }: Holder): boolean => {
  try {
    process.kill(pid, 0);
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
  return born === '' || born === bornOf(pid);
};

const holderIn = (file: string): Holder | null => {
  try {
    const value = JSON.parse(readFileSync(file, 'utf8')) as Partial<Holder>;
    return typeof value.pid === 'number' ? { pid: value.pid, born: value.born ?? '' } : null;
  } catch {
    return null;
  }
};

const WHY: Readonly<Record<string, string>> = {
  EEXIST: 'is a file: choose another with --data.',
  ENOTDIR: 'leads through a file: choose another with --data.',
  EACCES: 'may not be written to by this user: change its owner, or choose another with --data.',
  EPERM: 'may not be written to by this user: change its owner, or choose another with --data.',
  EROFS: 'is on a disk that cannot be written to: choose another with --data.',
  ENOSPC: 'is on a disk that is full: make room on it, or choose another with --data.',
};

/** What keeps a folder from being used, and what to do. */
export const whyNot = (error: unknown): string => {
  const { code = '', message } = error as NodeJS.ErrnoException;
  return WHY[code] ?? `cannot be used: ${message}`;
};

/** Takes the folder, or throws BadConfig naming the process that has it. Gives the release. */
export const lockFolder = (folder: string): (() => void) => {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    throw new BadConfig(`The data folder ${folder} ${whyNot(error)}`);
  }
  const file = join(folder, 'lock');
  const own = JSON.stringify({ pid: process.pid, born: bornOf(process.pid) } satisfies Holder);
  for (let attempt = 0; attempt < 3; attempt++) {
    try {
      writeFileSync(file, own, { flag: 'wx' });
      return () => rmSync(file, { force: true });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') {
        throw new BadConfig(`The data folder ${folder} ${whyNot(error)}`);
      }
    }
    const holder = holderIn(file);
    if (holder && lives(holder)) {
      throw new BadConfig(
        `The data folder ${folder} is in use by another server (process ${holder.pid}). Stop that one, or choose another folder with --data. If no server is running, delete ${file}.`,
      );
    }
    // Left by a server that was killed. Renaming it away lets just one of two newcomers go on.
    const stale = `${file}.${process.pid}.stale`;
    try {
      renameSync(file, stale);
      rmSync(stale);
    } catch {
      // The other newcomer was quicker; look again.
    }
  }
  throw new BadConfig(
    `The data folder ${folder} cannot be locked: ${file} comes back or cannot be taken away. If no server is running, delete it.`,
  );
};
