/** Archives read and written beside the server's own thread. */
import { Worker } from 'node:worker_threads';
import { Invalid } from '@kite/core/check/problem';
import { bundleOf } from '@kite/render/root';
import type { AssetStore } from '../store/assets';
import { newId } from '../store/ids';
import type { Projects } from '../store/projectsApart';
import type { ArchiveReply, ArchiveTask, ReadArchive } from './archiveThread';

/** The longest that an archive may take. */
const LONGEST_MS = 120_000;
const MOST_MEMORY_MB = 2_048;

const inThread = (task: ArchiveTask): Promise<ArchiveReply> =>
  new Promise((resolve, reject) => {
    const worker = new Worker(bundleOf('archiveThread'), {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
    });
    const late = setTimeout(() => {
      void worker.terminate();
      reject(new Invalid('the archive: takes too long to read'));
    }, LONGEST_MS);
    worker.on('message', resolve);
    worker.on('error', (error) =>
      reject(
        (error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY'
          ? new Invalid('the archive: takes too much memory to read')
          : error,
      ),
    );
    worker.on('exit', () => {
      clearTimeout(late);
      reject(new Error('the archive thread ended'));
    });
  });

const readReply = (reply: ArchiveReply): ReadArchive => {
  if (reply.kind === 'read') return reply.archive;
  if (reply.kind === 'invalid') throw new Invalid(reply.message, reply.field);
  throw new Error(reply.kind === 'failed' ? reply.message : 'the archive was not read');
};

/**
 * The project of an archive, checked, under this id and a name that none of `taken` is. Throws Invalid for anything that
 * is not a sound project of this version or an older one.
 */
export const readArchiveApart = async (bytes: Uint8Array, id: string, taken: readonly string[]): Promise<ReadArchive> =>
  readReply(await inThread({ kind: 'read', bytes, id, taken }));

/** A starter, or the demo for null, as if it came in an archive. */
export const beginApart = async (starter: string | null, id: string, taken: readonly string[]): Promise<ReadArchive> =>
  readReply(await inThread({ kind: 'begin', starter, id, taken }));

/** Takes in what was read: the files first, since the project names them. */
export const takeIn = async (
  { project, assets: named, files }: ReadArchive,
  { projects, assets }: { readonly projects: Projects; readonly assets: AssetStore },
): Promise<{ readonly id: string; readonly name: string }> => {
  await assets.addAll(named, files);
  await projects.take(project);
  return { id: project.id, name: project.name };
};

/** An archive as a new project, under a name that is still free. Throws Invalid for what is none. */
export const importArchive = async (
  bytes: Uint8Array,
  stores: { readonly projects: Projects; readonly assets: AssetStore },
): Promise<{ readonly id: string; readonly name: string }> => {
  const names = (await stores.projects.list()).map(({ name }) => name);
  return takeIn(await readArchiveApart(bytes, newId(), names), stores);
};

/** Writes a document, given as JSON, and the files at these places into an archive. */
export const writeArchiveApart = async (
  document: string,
  files: { readonly [sha: string]: string },
  out: string,
): Promise<void> => {
  const reply = await inThread({ kind: 'write', document, files, out });
  if (reply.kind === 'failed') throw new Error(reply.message);
};
