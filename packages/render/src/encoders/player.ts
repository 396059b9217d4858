/** The player of a banner, joined from what its scene uses. */
import { join, relative, sep } from 'node:path';
import { madeOnce } from '@kite/core/document/remembered';
import { CALLED, SEAMS, TABLES, TELLING, type Uses } from '@kite/player/parts';
import type { Plugin } from 'rolldown';
import { appRoot } from '../root';
import { untold } from './untold';

/** What is left out: a module that gives undefined, whatever it is asked for. */
const ABSENT = '\0absent';

/** Leaves out what a scene does not use. */
const leavingOut = (uses: Uses, root: string): Plugin => {
  const sources = ['core', 'player'].map((name) => ({ name, folder: join(root, 'packages', name, 'src') }));
  /** As the parts of a player are called by. */
  const nameOf = (path: string): string | null => {
    const own = sources.find(({ folder }) => path.startsWith(folder + sep));
    if (!own) return null;
    const within = relative(own.folder, path).replaceAll(sep, '/').replace(/\.ts$/, '');
    return own.name === 'core' ? within : `${own.name}/${within}`;
  };
  return {
    name: 'leaving-out',
    async resolveId(path, importer) {
      const asker = importer === undefined ? null : nameOf(importer);
      if (asker === null) return null;
      const table = TABLES.find(({ module }) => module === asker);
      if (table && !table.uses(path, uses)) return ABSENT;
      const seams = SEAMS.filter(({ at }) => at.includes(asker));
      if (seams.length === 0) return null;
      const found = await this.resolve(path, importer, { skipSelf: true });
      const name = found && nameOf(found.id);
      const seam = seams.find(({ modules }) => name !== null && modules.includes(name));
      if (!seam || seam.neededBy(uses)) return found;
      return seam.instead === undefined ? ABSENT : join(root, 'packages/player/src/instead', `${seam.instead}.ts`);
    },
    load: (id) => (id === ABSENT ? 'export {};' : null),
    transform(source, id) {
      const name = nameOf(id);
      const telling = (uses.formulas ? TELLING : [...TELLING, CALLED]).filter(({ folder }) =>
        name?.startsWith(`${folder}/`),
      );
      if (telling.length === 0) return null;
      return untold(id, source, new Set(telling.flatMap(({ keys }) => keys)), uses.formulas);
    },
  };
};

const joinedFor = async (uses: Uses): Promise<Uint8Array> => {
  const root = appRoot();
  // Banners alone need it.
  const { build } = await import('rolldown');
  const { output } = await build({
    input: join(root, 'packages/player/src/player.ts'),
    plugins: [leavingOut(uses, root)],
    shimMissingExports: true,
    treeshake: { moduleSideEffects: false },
    transform: { target: 'es2022' },
    output: { format: 'iife', minify: true, comments: false },
    logLevel: 'silent',
    write: false,
  });
  return new TextEncoder().encode(output[0].code);
};

/** The script of a player that plays scenes with these uses: joined once, since banners of one campaign use much the same. */
export const playerFor = madeOnce(joinedFor, (uses: Uses) =>
  JSON.stringify(uses, (_, value: unknown) => (value instanceof Set ? [...value].sort() : value)),
);
