/** The project archive: a zip with `project.json` and a folder `assets/` of files named by their SHA-256. */
import { strFromU8, strToU8, unzipSync, Zip, ZipDeflate, ZipPassThrough, zipSync } from 'fflate';
import { Invalid } from '../check/problem';
import { checkProject } from '../check/project';
import { upgraded } from '../check/versions';
import type { Project } from '../document/types';
import { EPOCH } from './epoch';

export const ARCHIVE_LIMITS = {
  /** Of the file, packed. */
  packed: 256 * 2 ** 20,
  /** Of project.json, unpacked. */
  document: 32 * 2 ** 20,
  /** Of one asset. */
  asset: 64 * 2 ** 20,
  /** Of all that is in it, unpacked. */
  all: 512 * 2 ** 20,
  entries: 2_010,
} as const;

const DOCUMENT = 'project.json';
const ASSETS = 'assets/';
const megabytes = (bytes: number) => `${bytes / 2 ** 20} MB`;

/** Throws Invalid for a project that weighs more than an archive of it may: `document` and `files` in bytes. */
export const fitsArchive = (document: number, files: readonly number[]): void => {
  if (document > ARCHIVE_LIMITS.document) {
    throw new Invalid(
      `the project: weighs more than the ${megabytes(ARCHIVE_LIMITS.document)} that an archive may hold`,
    );
  }
  const all = files.reduce((sum, bytes) => sum + bytes, document);
  // Pictures and fonts are packed already: the archive weighs what they do.
  if (all > ARCHIVE_LIMITS.packed) {
    throw new Invalid(
      `the project: its files weigh ${megabytes(Math.round(all / 2 ** 20) * 2 ** 20)}, more than the ${megabytes(ARCHIVE_LIMITS.packed)} that an archive may hold. Take some away, or make them smaller.`,
    );
  }
};

/** The contents of assets, by SHA-256. */
export type AssetFiles = ReadonlyMap<string, Uint8Array>;

export const writeArchive = (project: Project, files: AssetFiles): Uint8Array => {
  const used = [...new Set(Object.values(project.assets).map((a) => a.sha))].sort();
  const assets = used.flatMap((sha) => {
    const bytes = files.get(sha);
    // Pictures and fonts are packed already.
    return bytes ? [[`${ASSETS}${sha}`, [bytes, { level: 0 }]] as const] : [];
  });
  return zipSync(
    {
      [DOCUMENT]: strToU8(JSON.stringify(project)),
      ...Object.fromEntries(assets as [string, [Uint8Array, { level: 0 }]][]),
    },
    { level: 6, mtime: EPOCH },
  );
};

/** An archive made piece by piece: `write` is called with each, in order. */
export const streamArchive = async (
  document: string,
  files: Iterable<readonly [sha: string, read: () => Promise<Uint8Array>]>,
  write: (piece: Uint8Array) => void,
): Promise<void> => {
  let failure: Error | null = null;
  const zip = new Zip((error, piece) => {
    if (error) failure = error;
    else write(piece);
  });
  const add = (entry: ZipDeflate | ZipPassThrough, bytes: Uint8Array) => {
    entry.mtime = EPOCH;
    zip.add(entry);
    entry.push(bytes, true);
    if (failure) throw failure;
  };
  add(new ZipDeflate(DOCUMENT, { level: 6 }), strToU8(document));
  // Pictures and fonts are packed already.
  for (const [sha, read] of files) add(new ZipPassThrough(`${ASSETS}${sha}`), await read());
  zip.end();
  if (failure) throw failure;
};

const checkName = (name: string): void => {
  const parts = name.split('/');
  if (name.includes('\\') || name.startsWith('/') || /^[a-z]:/i.test(name) || parts.includes('..')) {
    throw new Invalid(`the archive: entry "${name.slice(0, 80)}" points outside the archive`);
  }
  if (name !== DOCUMENT && name !== ASSETS && !/^assets\/[0-9a-f]{64}$/.test(name)) {
    throw new Invalid(`the archive: entry "${name.slice(0, 80)}" is not part of a project`);
  }
};

/** What archives are called. */
export const ARCHIVE_END = '.kite';

/**
 * The archives that a zip of archives holds, one after the other, as one unpacks them; null for what is none. Throws
 * Invalid for one that is damaged or holds more than an archive may.
 */
export const archivesIn = (bytes: Uint8Array): readonly (() => Uint8Array)[] | null => {
  const names: string[] = [];
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (originalSize > ARCHIVE_LIMITS.packed) throw new Invalid(`the archive: “${name.slice(0, 80)}” is too large`);
        names.push(name);
        return false;
      },
    });
  } catch (error) {
    if (error instanceof Invalid) throw error;
    throw new Invalid('the archive: is damaged or cut short and cannot be unpacked');
  }
  if (names.length === 0 || !names.every((name) => name.endsWith(ARCHIVE_END))) return null;
  return names.map((own) => () => unzipSync(bytes, { filter: ({ name }) => name === own })[own] as Uint8Array);
};

const unpack = (bytes: Uint8Array): { [name: string]: Uint8Array } => {
  let entries = 0;
  let all = 0;
  const files = unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      if (++entries > ARCHIVE_LIMITS.entries) {
        throw new Invalid(`the archive: has more than ${ARCHIVE_LIMITS.entries} entries`);
      }
      checkName(name);
      const most = name === DOCUMENT ? ARCHIVE_LIMITS.document : ARCHIVE_LIMITS.asset;
      if (originalSize > most) throw new Invalid(`the archive: "${name}" unpacks to more than ${megabytes(most)}`);
      all += originalSize;
      if (all > ARCHIVE_LIMITS.all)
        throw new Invalid(`the archive: unpacks to more than ${megabytes(ARCHIVE_LIMITS.all)}`);
      return name !== ASSETS;
    },
  });
  if (!files[DOCUMENT]) throw new Invalid(`the archive: has no ${DOCUMENT}`);
  return files;
};

export interface Archive {
  readonly project: Project;
  /** As the archive names them: whether each has the SHA-256 it is named by is for its reader to check. */
  readonly files: AssetFiles;
}

/** Reads an archive; Invalid for anything that is not a sound project of this version or an older one. */
export const readArchive = (bytes: Uint8Array): Archive => {
  if (bytes.length > ARCHIVE_LIMITS.packed) {
    throw new Invalid(`the archive: is larger than ${megabytes(ARCHIVE_LIMITS.packed)}`);
  }
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new Invalid('the archive: is not a zip file');
  let unpacked: { [name: string]: Uint8Array };
  try {
    unpacked = unpack(bytes);
  } catch (error) {
    if (error instanceof Invalid) throw error;
    throw new Invalid('the archive: is damaged or cut short and cannot be unpacked');
  }
  const { [DOCUMENT]: document, ...rest } = unpacked;
  let value: unknown;
  try {
    value = JSON.parse(strFromU8(document as Uint8Array));
  } catch {
    throw new Invalid(`the archive: its ${DOCUMENT} is not valid JSON`);
  }
  const files = new Map(Object.entries(rest).map(([name, data]) => [name.slice(ASSETS.length), data]));
  return { project: checkProject(upgraded(value)), files };
};
