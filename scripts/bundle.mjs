// Bundles the programs that Node runs into dist/. The player of a banner is joined for each: see packages/render/src/encoders/player.ts.
import { build } from 'esbuild';

/**
 * Plain JavaScript that our programs use a part of: loaded as its many files, all of it, it would be half of what a thread that draws
 * takes to start.
 */
const INSIDE = [
  'bezier-easing',
  'clipper2-ts',
  'culori',
  'fflate',
  'mutative',
  'omggif',
  'perfect-freehand',
  'simplex-noise',
  'upng-js',
  'yup',
];

/** Our own packages are bundled from source, and what is used of these; all else from npm stays an import. */
const npmStaysOutside = {
  name: 'npm-stays-outside',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, ({ path, kind, importer }) => {
      const isOurs = kind === 'entry-point' || path.startsWith('@kite/') || INSIDE.includes(path.split('/')[0]);
      // What these ask for themselves is theirs.
      return isOurs || importer.includes('node_modules') ? undefined : { path, external: true };
    });
  },
};

export const bundle = async () => {
  await build({
    entryPoints: {
      server: 'apps/server/src/main.ts',
      renderJob: 'packages/render/src/process/renderJob.ts',
      orphanWatch: 'packages/render/src/process/orphanWatch.ts',
      archiveThread: 'apps/server/src/archive/archiveThread.ts',
      soak: 'soak/main.ts',
      posterThread: 'apps/server/src/posters/posterThread.ts',
      projectsThread: 'apps/server/src/store/projectsThread.ts',
      dbWorker: 'apps/server/src/store/dbWorker.ts',
      layOut: 'apps/server/src/store/layOut.ts',
      drawWorker: 'packages/render/src/drawWorker.ts',
      kite: 'apps/cli/src/main.ts',
      bench: 'bench/main.ts',
    },
    outdir: 'dist',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    sourcemap: true,
    plugins: [npmStaysOutside],
    loader: { '.sql': 'text' },
    logLevel: 'warning',
  });
};
