/** A zip that is written while what goes into it comes: as large as it likes, and never in memory as a whole. */
import { createReadStream, createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { deflateRawSync } from 'node:zlib';
import { Zip, ZipPassThrough } from 'fflate';

const NOTHING = new Uint8Array();

/** By zlib, which packs a twentieth smaller than the library that writes the zip. */
export const packed = (bytes: Uint8Array): Uint8Array<ArrayBuffer> => deflateRawSync(bytes, { level: 9 });

/** What comes as a whole, and is packed. */
class Packed extends ZipPassThrough {
  override readonly compression = 8;

  /** In bytes, once it is there. */
  packedSize = 0;

  protected override process(bytes: Uint8Array, last: boolean): void {
    const result = packed(bytes);
    this.packedSize = result.length;
    this.ondata(null, result, last);
  }
}

export interface ZipFile {
  /** Pictures are small already: they are put in as they are. */
  readonly add: (name: string, bytes: Uint8Array) => Promise<void>;
  /** Gives what it weighs in the zip, in bytes. */
  readonly pack: (name: string, bytes: Uint8Array) => Promise<number>;
  readonly addFile: (name: string, path: string) => Promise<void>;
}

/** Writes a zip of whatever `fill` adds, which is said to be of a time: the same files of the same time give the same bytes. */
export const writeZip = async (
  out: string,
  fill: (zip: ZipFile) => Promise<void>,
  mtime = new Date(),
): Promise<void> => {
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
    const begun = <E extends ZipPassThrough>(entry: E): E => {
      entry.mtime = mtime;
      zip.add(entry);
      return entry;
    };
    await fill({
      add: (name, bytes) => written(begun(new ZipPassThrough(name)), bytes, true),
      pack: async (name, bytes) => {
        const entry = begun(new Packed(name));
        await written(entry, bytes, true);
        return entry.packedSize;
      },
      addFile: async (name, path) => {
        const entry = begun(new ZipPassThrough(name));
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
