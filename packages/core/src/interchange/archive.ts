/** The project archive: a zip with `project.json` and a folder `assets/`. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { Invalid } from '../check/problem';
import { checkProject } from '../check/project';
import { upgraded } from '../check/versions';
import type { Project } from '../document/types';

export const ARCHIVE_LIMITS = {
  /** Of the file, packed. */
  packed: 64 * 2 ** 20,
  /** Of project.json, unpacked. */
  document: 32 * 2 ** 20,
  entries: 2_000,
} as const;

const DOCUMENT = 'project.json';
const ASSETS = 'assets/';

/** The time that entries carry: fixed, so that the same project gives the same bytes. */
const EPOCH = new Date(1980, 0, 1);

export const writeArchive = (project: Project): Uint8Array =>
  zipSync(
    { [DOCUMENT]: strToU8(JSON.stringify(project, null, 1)), [ASSETS]: new Uint8Array() },
    { level: 6, mtime: EPOCH },
  );

const checkName = (name: string): void => {
  const parts = name.split('/');
  if (name.includes('\\') || name.startsWith('/') || /^[a-z]:/i.test(name) || parts.includes('..')) {
    throw new Invalid(`the archive: entry "${name.slice(0, 80)}" points outside the archive`);
  }
  if (name !== DOCUMENT && !name.startsWith(ASSETS)) {
    throw new Invalid(`the archive: entry "${name.slice(0, 80)}" is not part of a project`);
  }
};

const unpack = (bytes: Uint8Array): Uint8Array => {
  let entries = 0;
  const files = unzipSync(bytes, {
    filter: ({ name, originalSize }) => {
      if (++entries > ARCHIVE_LIMITS.entries) {
        throw new Invalid(`the archive: has more than ${ARCHIVE_LIMITS.entries} entries`);
      }
      checkName(name);
      if (originalSize > ARCHIVE_LIMITS.document) {
        const most = ARCHIVE_LIMITS.document / 2 ** 20;
        throw new Invalid(`the archive: "${name}" unpacks to more than ${most} MB`);
      }
      return name === DOCUMENT;
    },
  });
  const document = files[DOCUMENT];
  if (!document) throw new Invalid(`the archive: has no ${DOCUMENT}`);
  return document;
};

/** Reads an archive; Invalid for anything that is not a sound project of this version or an older one. */
export const readArchive = (bytes: Uint8Array): Project => {
  if (bytes.length > ARCHIVE_LIMITS.packed) {
    throw new Invalid(`the archive: is larger than ${ARCHIVE_LIMITS.packed / 2 ** 20} MB`);
  }
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new Invalid('the archive: is not a zip file');
  let text: string;
  try {
    text = strFromU8(unpack(bytes));
  } catch (error) {
    if (error instanceof Invalid) throw error;
    throw new Invalid('the archive: is damaged or cut short and cannot be unpacked');
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Invalid(`the archive: its ${DOCUMENT} is not valid JSON`);
  }
  return checkProject(upgraded(value));
};
