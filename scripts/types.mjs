// npm run types: every part under its own configuration.
import { pathToFileURL } from 'node:url';
import { tool } from './steps.mjs';

export const PARTS = ['packages/core', 'packages/player', 'tsconfig.node.json', 'apps/web'];

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  process.exit(PARTS.every((part) => tool('tsc', ['-p', part])) ? 0 : 1);
}
