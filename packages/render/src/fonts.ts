/** The application's own font files, from their packages. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { SHIPPED } from '@kite/core/type/shipped';
import type { FontFile } from '@kite/core/type/shelf';
import { toOpenType } from './woff';

const require = createRequire(import.meta.url);

/** Letters are looked up in these subsets, in this order. */
const SUBSETS = ['latin', 'latin-ext'];

export type ApplicationFont = Extract<FontFile, { from: 'application' }>;

/** The files of a shipped face; null for one that is not shipped. */
export const applicationFont = async ({ family, weight, italic }: ApplicationFont): Promise<Uint8Array[] | null> => {
  const known = SHIPPED.find((f) => f.id === family);
  if (!known?.weights.includes(weight) || (italic && known.italics === 'no')) return null;
  const folder = join(dirname(require.resolve(`@fontsource/${family}/package.json`)), 'files');
  const names = SUBSETS.map((subset) => `${family}-${subset}-${weight}-${italic ? 'italic' : 'normal'}.woff`);
  return Promise.all(names.map(async (name) => toOpenType(await readFile(join(folder, name)))));
};
