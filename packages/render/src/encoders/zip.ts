/** A zip that is written while what goes into it comes: as large as it likes, and never in memory as a whole. */
import { createReadStream, createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { Zip, ZipPassThrough } from 'fflate';

const NOTHING = new Uint8Array();

export interface ZipFile {
  /** Pictures are small already: they are put in as they are. */
  readonly add: (name: string, bytes: Uint8Array) => Promise<void>;
  readonly addFile: (name: string, path: string) => Promise<void>;
}

/** Writes a zip of whatever `fill` adds. */
export const writeZip = async (out: string, fill: (zip: ZipFile) => Promise<void>): Promise<void> => {
  const file = createWriteStream(out);
  const ended = finished(file);
  ended.catch(() => undefined);
  try {
    await once(file, 'open');
    let full = false;
    const zip = new Zip((error, chunk, last) => {
      if (error) file.destroy(error);
      else full = !file.write(chunk) || full;
      if (last) file.end();
    });
    const written = async (entry: ZipPassThrough, bytes: Uint8Array, last: boolean): Promise<void> => {
      entry.push(bytes, last);
      if (full) await Promise.race([once(file, 'drain'), ended]);
      full = false;
    };
    const begun = (name: string): ZipPassThrough => {
      const entry = new ZipPassThrough(name);
      zip.add(entry);
      return entry;
    };
    await fill({
      add: (name, bytes) => written(begun(name), bytes, true),
      addFile: async (name, path) => {
        const entry = begun(name);
        for await (const bytes of createReadStream(path)) await written(entry, bytes as Uint8Array, false);
        await written(entry, NOTHING, true);
      },
    });
    zip.end();
    await ended;
  } finally {
    file.destroy();
  }
};
