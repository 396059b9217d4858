import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The checkout that this file runs from, as source or as a bundle. */
export const appRoot = (): string => {
  for (let at = dirname(fileURLToPath(import.meta.url)); ; at = dirname(at)) {
    const manifest = join(at, 'package.json');
    if (
      existsSync(manifest) &&
      (JSON.parse(readFileSync(manifest, 'utf8')) as { name?: string }).name === 'agile-kite'
    ) {
      return at;
    }
    if (dirname(at) === at) throw new Error('not inside an Agile Kite checkout');
  }
};

/** The bundle of one of our own programs, to be started as a thread or a process. */
export const bundleOf = (
  name: 'drawWorker' | 'dbWorker' | 'projectsThread' | 'renderJob' | 'orphanWatch' | 'archiveThread' | 'posterThread',
): string => join(appRoot(), 'dist', `${name}.mjs`);
