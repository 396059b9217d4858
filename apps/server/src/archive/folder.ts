/** A folder that is watched for archives: what is put into it becomes projects. */
import { mkdir, readdir, readFile, rename, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Invalid } from '@kite/core/check/problem';
import { ARCHIVE_END, ARCHIVE_LIMITS, archivesIn } from '@kite/core/interchange/archive';

/** Where archives go once they were taken in, or could not be. */
const TAKEN = 'imported';
const REFUSED = 'refused';

const isArchive = (name: string): boolean => name.endsWith(ARCHIVE_END) || name.endsWith('.zip');

interface Seen {
  readonly size: number;
  readonly changed: number;
}

export class WatchedFolder {
  /** Files as they were when they were last looked at: one that is still being written changes. */
  private seen = new Map<string, Seen>();
  private busy = false;

  constructor(
    private readonly path: string,
    /** Makes a project of an archive, and gives its name; Invalid for what is none. */
    private readonly take: (bytes: Uint8Array) => Promise<{ readonly name: string }>,
    private readonly say: (text: string) => void,
  ) {}

  async prepare(): Promise<void> {
    for (const folder of [TAKEN, REFUSED]) await mkdir(join(this.path, folder), { recursive: true });
  }

  /** Takes in what is there and has not changed since the last look. Folders on other machines tell of nothing by themselves. */
  async look(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    try {
      const before = this.seen;
      this.seen = new Map();
      for (const name of (await readdir(this.path)).filter(isArchive)) {
        const { size, mtimeMs: changed } = await stat(join(this.path, name));
        const was = before.get(name);
        if (was?.size === size && was.changed === changed) await this.takeIn(name, size);
        else this.seen.set(name, { size, changed });
      }
    } finally {
      this.busy = false;
    }
  }

  private async takeIn(name: string, size: number): Promise<void> {
    try {
      if (size > ARCHIVE_LIMITS.packed) throw new Invalid('the archive: is larger than an archive may be');
      const bytes = await readFile(join(this.path, name));
      const all = name.endsWith('.zip') ? archivesIn(bytes) : null;
      for (const archive of all ?? [() => bytes])
        this.say(`${name}: imported as “${(await this.take(archive())).name}”`);
      await this.putAway(name, TAKEN);
    } catch (error) {
      // The disk, or the database: tried again with the next look.
      if (!(error instanceof Invalid)) throw error;
      const why = `${name} was not imported. ${error.message}`;
      this.say(why);
      await writeFile(join(this.path, REFUSED, `${name}.txt`), `${why}\n`);
      await this.putAway(name, REFUSED);
    }
  }

  private putAway(name: string, folder: string): Promise<void> {
    return rename(join(this.path, name), join(this.path, folder, name));
  }
}
