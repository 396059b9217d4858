/** Compiles packages/core/src/picture/loops.wat into the module beside it that holds its bytes. */
import { readFileSync, writeFileSync } from 'node:fs';
import { compiledWat } from './wat.mjs';

const folder = new URL('../packages/core/src/picture/', import.meta.url);
const base64 = await compiledWat(readFileSync(new URL('loops.wat', folder), 'utf8'));
writeFileSync(
  new URL('loopsWasm.ts', folder),
  `/** What loops.wat compiles to, in base64: made by \`npm run loops\`. */\nexport const LOOPS_WASM =\n  '${base64}';\n`,
);
