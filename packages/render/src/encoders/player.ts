/** The player of a banner, joined from what its scene uses. */
import { join, relative, sep } from 'node:path';
import { SEAMS, TABLES, type Uses } from '@kite/player/parts';
import { build, type Plugin } from 'esbuild';
import { appRoot } from '../root';

const ABSENT = { path: 'absent', namespace: 'absent' } as const;
/** Marks what has been asked for by this plugin itself. */
const OWN = 'own';

/** Leaves out what a scene does not use: whatever it would have given is undefined there. */
const leavingOut = (uses: Uses, root: string): Plugin => {
  const core = join(root, 'packages/core/src');
  const nameOf = (path: string): string | null => {
    const within = relative(core, path);
    return within.startsWith('..') ? null : within.replaceAll(sep, '/').replace(/\.ts$/, '');
  };
  return {
    name: 'leaving-out',
    setup: (of) => {
      of.onResolve({ filter: /^(\.|@kite\/)/ }, async ({ path, importer, kind, resolveDir, pluginData }) => {
        if (pluginData === OWN || kind === 'entry-point') return undefined;
        const asker = nameOf(importer);
        const table = TABLES.find(({ module }) => module === asker);
        if (table && !table.uses(path, uses)) return ABSENT;
        const seams = SEAMS.filter(({ at }) => asker !== null && at.includes(asker));
        if (seams.length === 0) return undefined;
        const found = await of.resolve(path, { kind, importer, resolveDir, pluginData: OWN });
        const name = nameOf(found.path);
        const seam = seams.find(({ modules }) => name !== null && modules.includes(name));
        if (!seam || seam.neededBy(uses)) return found;
        return seam.instead === undefined
          ? ABSENT
          : { path: join(root, 'packages/player/src/instead', `${seam.instead}.ts`) };
      });
      of.onLoad({ filter: /./, namespace: ABSENT.namespace }, () => ({ contents: 'module.exports = {};' }));
    },
  };
};

/** The script of a player that plays scenes with these uses. */
export const playerFor = async (uses: Uses): Promise<Uint8Array> => {
  const root = appRoot();
  const { outputFiles } = await build({
    entryPoints: [join(root, 'packages/player/src/player.ts')],
    plugins: [leavingOut(uses, root)],
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    legalComments: 'none',
    logLevel: 'error',
    write: false,
  });
  return (outputFiles[0] as (typeof outputFiles)[number]).contents;
};
