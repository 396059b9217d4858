/** Files by the SHA-256 of what is in them, in a folder. */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';

export class FileStore {
  readonly root: string;
  private readonly work: string;

  constructor(folder: string) {
    this.root = join(folder, 'files');
    this.work = join(folder, 'work');
  }

  /** Clears what a killed server left half-made. */
  async prepare(): Promise<void> {
    await mkdir(this.root, { recursive: true });
    await mkdir(this.work, { recursive: true });
    for (const name of await readdir(this.work)) await rm(join(this.work, name), { recursive: true, force: true });
  }

  workFile(name: string): string {
    return join(this.work, name);
  }

  pathOf(sha: string): string {
    return join(this.root, sha.slice(0, 2), sha);
  }

  /** Moves a finished file into the store; it is on disk when the name is given. */
  async take(path: string): Promise<string> {
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    const sha = hash.digest('hex');
    const file = await open(path, 'r');
    await file.sync();
    await file.close();
    const target = this.pathOf(sha);
    await mkdir(dirname(target), { recursive: true });
    await rename(path, target);
    return sha;
  }

  async remove(sha: string): Promise<void> {
    await rm(this.pathOf(sha), { force: true });
  }
}
