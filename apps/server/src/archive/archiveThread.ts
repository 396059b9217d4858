/** The thread that reads or writes one archive, or makes what is begun from: unpacking, parsing, checking and drawing take time. */
import { createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { finished } from 'node:stream/promises';
import { parentPort, workerData } from 'node:worker_threads';
import { Invalid } from '@kite/core/check/problem';
import type { Asset, Project } from '@kite/core/document/types';
import { uniqueName } from '@kite/core/document/make';
import { type AssetFiles, readArchive, streamArchive } from '@kite/core/interchange/archive';
import { type Written, writtenOf } from '../store/written';

/** An archive as the server takes it in: the project stays written, since a large one would stall it as objects. */
export interface ReadArchive {
  readonly project: Written;
  readonly assets: readonly Asset[];
  readonly files: AssetFiles;
}

export type ArchiveTask =
  | {
      readonly kind: 'read';
      readonly bytes: Uint8Array;
      /** The id that the project gets, and the names that it may not have. */
      readonly id: string;
      readonly taken: readonly string[];
    }
  | {
      readonly kind: 'begin';
      /** A starter; null for the demo. */
      readonly starter: string | null;
      readonly id: string;
      readonly taken: readonly string[];
    }
  | {
      readonly kind: 'write';
      /** JSON. */
      readonly document: string;
      /** Where the files of its assets lie, by SHA-256. */
      readonly files: { readonly [sha: string]: string };
      readonly out: string;
    };
export type ArchiveReply =
  | { readonly kind: 'read'; readonly archive: ReadArchive }
  | { readonly kind: 'written' }
  | { readonly kind: 'invalid'; readonly message: string; readonly field: string }
  | { readonly kind: 'failed'; readonly message: string };

const write = async ({ document, files, out }: Extract<ArchiveTask, { kind: 'write' }>): Promise<ArchiveReply> => {
  const stream = createWriteStream(out);
  const entries = Object.entries(files).map(([sha, path]) => [sha, () => readFile(path)] as const);
  await streamArchive(document, entries, (piece) => void stream.write(piece));
  stream.end();
  await finished(stream);
  return { kind: 'written' };
};

/** A project under an id and a name of its own, with its files. */
const named = (
  { project, files }: { readonly project: Project; readonly files: AssetFiles },
  { id, taken }: { readonly id: string; readonly taken: readonly string[] },
): ReadArchive => {
  const written = writtenOf({ ...project, id, name: uniqueName(project.name, taken) });
  return { project: written, assets: Object.values(project.assets), files };
};

const answered = async (task: ArchiveTask): Promise<ArchiveReply> => {
  switch (task.kind) {
    case 'read':
      return { kind: 'read', archive: named(readArchive(task.bytes), task) };
    case 'begin': {
      // What draws is not wanted for archives.
      const { begunFrom } = await import('./starterArchive');
      return { kind: 'read', archive: named(await begunFrom(task.starter), task) };
    }
    case 'write':
      return write(task);
  }
};

const done = async (task: ArchiveTask): Promise<ArchiveReply> => {
  try {
    return await answered(task);
  } catch (error) {
    if (error instanceof Invalid) return { kind: 'invalid', message: error.message, field: error.field };
    return { kind: 'failed', message: error instanceof Error ? error.message : String(error) };
  }
};

const port = parentPort;
if (!port) throw new Error('archiveThread runs as a thread');
port.postMessage(await done(workerData as ArchiveTask));
