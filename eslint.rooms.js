/** The order in which rooms read each other: each imports only what stands before it. */
const CORE = [
  'document',
  'time',
  'geometry',
  'motion',
  'type',
  'picture',
  'recipe',
  'properties',
  'formula',
  'scene',
  'moves',
  'paint',
  'delivery',
  'edits',
  'check',
  'proof',
  'interchange',
];

/** Workspaces and what each may import of the others. */
const WORKSPACES = {
  'packages/core': [],
  'packages/api': ['core'],
  'packages/player': ['core'],
  'packages/render': ['core', 'player'],
  'apps/web': ['core', 'api'],
  demo: ['core'],
  'apps/server': ['core', 'api', 'render', 'demo'],
  'apps/cli': ['core', 'render', 'server', 'demo'],
};

const refused = (regex, message) => ({ 'no-restricted-imports': ['error', { patterns: [{ regex, message }] }] });

const TESTS = ['**/*.test.{ts,tsx}', 'packages/core/src/test/**'];

const rooms = CORE.map((room, i) => ({
  files: [`packages/core/src/${room}/**/*.ts`],
  ignores: TESTS,
  rules: refused(
    `^(@kite/|(\\.\\./)+(${[...CORE.slice(i + 1), 'test'].join('|')})/)`,
    `${room} reads only what stands before it: see eslint.rooms.js.`,
  ),
}));

const workspaces = Object.entries(WORKSPACES)
  .filter(([folder]) => folder !== 'packages/core')
  .map(([folder, allowed]) => ({
    files: [`${folder}/**/*.{ts,tsx}`],
    ignores: TESTS,
    rules: refused(
      `^@kite/(?!(${allowed.join('|')})/)|^@kite/core/test/`,
      `${folder} reads ${allowed.join(' and ')} alone: see eslint.rooms.js.`,
    ),
  }));

export default [...rooms, ...workspaces];
