/** The application's own font files, from their packages. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { SHIPPED } from '@kite/core/type/shipped';
import type { FontFile } from '@kite/core/type/shelf';
import { toOpenType } from './woff';

const require = createRequire(import.meta.url);

export type ApplicationFont = Extract<FontFile, { from: 'application' }>;

/** Where the files of a shipped face are; null for one that is not shipped. */
export const applicationFontPaths = ({ family, weight, italic }: ApplicationFont): string[] | null => {
  const known = SHIPPED.find((f) => f.id === family);
  if (!known?.weights.includes(weight) || (italic && known.italics === 'no')) return null;
  const folder = join(dirname(require.resolve(`@fontsource/${family}/package.json`)), 'files');
  const style = italic ? 'italic' : 'normal';
  return known.subsets.map((subset) => join(folder, `${family}-${subset}-${weight}-${style}.woff`));
};

/** A file of a shipped face as OpenType. */
export const readFontFile = async (path: string): Promise<Uint8Array> => toOpenType(await readFile(path));

/** The files of a shipped face; null for one that is not shipped. */
export const applicationFont = async (font: ApplicationFont): Promise<Uint8Array[] | null> => {
  const paths = applicationFontPaths(font);
  return paths && Promise.all(paths.map(readFontFile));
};
