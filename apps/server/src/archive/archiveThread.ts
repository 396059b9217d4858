/** The thread that reads or writes one archive: unpacking, parsing and checking a large one takes seconds. */
import { createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { finished } from 'node:stream/promises';
import { parentPort, workerData } from 'node:worker_threads';
import { Invalid } from '@kite/core/check/problem';
import type { Project } from '@kite/core/document/types';
import { type Archive, readArchive, streamArchive } from '@kite/core/interchange/archive';

export type ArchiveTask =
  | { readonly kind: 'read'; readonly bytes: Uint8Array }
  | {
      readonly kind: 'write';
      readonly project: Project;
      /** Where the files of its assets lie, by SHA-256. */
      readonly files: { readonly [sha: string]: string };
      readonly out: string;
    };
export type ArchiveReply =
  | { readonly kind: 'read'; readonly archive: Archive }
  | { readonly kind: 'written' }
  | { readonly kind: 'invalid'; readonly message: string; readonly field: string }
  | { readonly kind: 'failed'; readonly message: string };

const write = async ({ project, files, out }: Extract<ArchiveTask, { kind: 'write' }>): Promise<ArchiveReply> => {
  const stream = createWriteStream(out);
  const entries = Object.entries(files).map(([sha, path]) => [sha, () => readFile(path)] as const);
  await streamArchive(JSON.stringify(project), entries, (piece) => void stream.write(piece));
  stream.end();
  await finished(stream);
  return { kind: 'written' };
};

const done = async (task: ArchiveTask): Promise<ArchiveReply> => {
  try {
    return task.kind === 'read' ? { kind: 'read', archive: readArchive(task.bytes) } : await write(task);
  } catch (error) {
    if (error instanceof Invalid) return { kind: 'invalid', message: error.message, field: error.field };
    return { kind: 'failed', message: error instanceof Error ? error.message : String(error) };
  }
};

const port = parentPort;
if (!port) throw new Error('archiveThread runs as a thread');
port.postMessage(await done(workerData as ArchiveTask));
