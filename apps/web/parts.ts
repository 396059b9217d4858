/**
 * In which files the application comes over the wire. Left to itself a bundler gives each set of pages its own file for what only they
 * share, a hundred for the editor alone: they pack an eighth worse than a few large ones, and each is one more question to the server.
 */
import { fileURLToPath } from 'node:url';
import type { Plugin, Rolldown } from 'vite';

type Graph = Parameters<Rolldown.CodeSplittingNameFunction>[1];

const src = (path: string): string => fileURLToPath(new URL(`src/${path}`, import.meta.url));

const MAIN = src('main.tsx');
const EDITOR = src('editor/EditorPage.tsx');
const WORKER = src('preview/worker.ts');
/** Comes to the worker later. */
const PROOFING = src('preview/proofing.ts');
const CLIENT = src('preview/client.ts');
const RENDERS = src('pages/renders/RendersPage.tsx');
const CARDS = src('pages/help/CardsPage.tsx');
const FORMULAS = src('pages/help/FormulasPage.tsx');
const GUIDE = src('pages/help/GuidePage.tsx');

/**
 * A file has the modules that come with one of each of its lists, and are in no file before it; of those that neither the first page
 * nor the editor needs it has none.
 */
const FILES: Readonly<Record<string, readonly (readonly string[])[]>> = {
  common: [
    [MAIN, RENDERS],
    [WORKER, PROOFING],
  ],
  start: [[MAIN, RENDERS]],
  base: [[WORKER, PROOFING, CARDS, FORMULAS], [EDITOR]],
  edits: [[GUIDE]],
  editor: [[EDITOR]],
};
/** Of a package's many modules each file has those that it uses: which, is not known before. */
const BY_USE = /node_modules\/culori\//;

/** The paths of all modules that come with some, themselves too. */
const comingWith = (graph: Graph, paths: readonly string[], found = new Set<string>()): Set<string> => {
  for (const path of paths) {
    if (found.has(path)) continue;
    found.add(path);
    comingWith(graph, graph.getModuleInfo(path)?.importedIds ?? [], found);
  }
  return found;
};

/** The file that a module belongs to; `null` leaves it to the bundler, as what comes later by itself is. */
const nameOfFile = (): Rolldown.CodeSplittingNameFunction => {
  let known: { wanted: Set<string>; files: (readonly [string, readonly Set<string>[]])[] } | null = null;
  return (path, graph) => {
    known ??= {
      wanted: comingWith(graph, [MAIN, EDITOR]),
      files: Object.entries(FILES).map(([name, lists]) => [name, lists.map((modules) => comingWith(graph, modules))]),
    };
    if (BY_USE.test(path) || !known.wanted.has(path)) return null;
    return known.files.find(([, lists]) => lists.every((modules) => modules.has(path)))?.[0] ?? null;
  };
};

/** No file needs one that needs it: what a module imports is in its own file or in one before it. */
export const parts = (): Rolldown.CodeSplittingOptions => ({
  includeDependenciesRecursively: false,
  groups: [{ debugName: 'parts', name: nameOfFile() }],
});

/** The worker, and the files that it is made of. */
const OF_WORKER = ['worker', ...Object.keys(FILES).filter((name) => FILES[name]!.flat().includes(WORKER))];

/** Files that a worker has too ask for others one by one: nothing can be fetched ahead where there is no page. */
export const fetchedAhead = (_file: string, others: string[], { hostId }: { hostId: string }): string[] =>
  OF_WORKER.some((name) => hostId.includes(`/${name}-`)) ? [] : others;

/** Lets the worker that draws be made of the files of the page: by itself it would bring most of them once more. */
export const sharedWorker = (): Plugin => {
  let reference = '';
  return {
    name: 'shared-worker',
    apply: 'build',
    enforce: 'pre',
    buildStart() {
      reference = this.emitFile({ type: 'chunk', id: WORKER });
    },
    transform(code, path) {
      const told = "new URL('./worker.ts', import.meta.url)";
      if (path !== CLIENT) return null;
      if (!code.includes(told)) throw new Error(`${path} does not say ${told}`);
      return code.replace(told, `import.meta.ROLLUP_FILE_URL_${reference}`);
    },
  };
};
