/** Archives that somebody chose, taken in one after the other; a zip of archives is all that it holds. */
import { PROJECTS } from '@kite/api/projects';
import { toast } from '../../ui/toast';
import { ApiError, ask } from '../../api/client';

/** Names in a sentence: three at the most. */
export const quoted = (names: readonly string[]): string => {
  const [few, more] = [names.slice(0, 3).map((name) => `“${name}”`), names.length - 3];
  return more > 0 ? `${few.join(', ')} and ${more} more` : few.join(', ');
};

const ARCHIVE = /\.(kite|zip)$/i;
const NO_ARCHIVE = 'it is not the archive of a project. Pictures, drawings and fonts are imported inside a project.';

/** What reads zips is wanted here alone. */
const archivesOf = async (file: File): Promise<readonly (() => Blob)[]> => {
  if (!file.name.endsWith('.zip')) return [() => file];
  const { archivesIn } = await import('@kite/core/interchange/archive');
  const inside = archivesIn(new Uint8Array(await file.arrayBuffer()));
  return inside?.map((archive) => () => new Blob([archive() as Uint8Array<ArrayBuffer>])) ?? [() => file];
};

/** The names of the projects that came of it. One that cannot be taken in is told, and the others are. */
export const importProjects = async (files: readonly File[]): Promise<string[]> => {
  const names: string[] = [];
  for (const file of files) {
    try {
      for (const archive of await archivesOf(file)) names.push((await ask(PROJECTS.import, archive())).name);
    } catch (error) {
      const why = error instanceof ApiError && !ARCHIVE.test(file.name) ? NO_ARCHIVE : (error as Error).message;
      toast.error(`“${file.name}” was not imported: ${why}`, { duration: 12_000 });
    }
  }
  return names;
};
