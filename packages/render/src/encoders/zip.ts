/** A zip that is written while what goes into it comes: as large as it likes, and never in memory as a whole. */
import { createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { Zip, ZipPassThrough } from 'fflate';

export interface ZipFile {
  /** Pictures are small already: they are put in as they are. */
  readonly add: (name: string, bytes: Uint8Array) => Promise<void>;
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
    await fill({
      add: async (name, bytes) => {
        const entry = new ZipPassThrough(name);
        zip.add(entry);
        entry.push(bytes, true);
        if (full) await Promise.race([once(file, 'drain'), ended]);
        full = false;
      },
    });
    zip.end();
    await ended;
  } finally {
    file.destroy();
  }
};
