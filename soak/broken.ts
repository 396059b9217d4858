/** Values put wrong, in a copy of anything that JSON can say. */
import type { Chance } from '@kite/core/test/random';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

const STRANGE: readonly Json[] = [
  null,
  true,
  -1,
  1e12,
  0.5,
  '',
  'x'.repeat(3_000),
  '\0',
  '\uD83D',
  '🚋',
  [],
  {},
  [[[[]]]],
  { toString: 1 },
  '__proto__',
  'constructor',
  'NaN',
];
/** A copy of one: what is put into a document may be broken in its turn. */
const strange = (chance: Chance): Json => JSON.parse(JSON.stringify(chance.one(STRANGE))) as Json;

const KEYS = ['__proto__', 'constructor', 'x', '', 'toString', '0'];

/** A copy with something in it replaced, taken away, added or put elsewhere. */
export const broken = (chance: Chance, value: unknown): unknown => {
  const copy = JSON.parse(JSON.stringify(value)) as Json;
  const times = chance.whole(1, 3);
  for (let n = 0; n < times; n++) breakOne(chance, copy);
  return copy;
};

const holdersIn = (value: Json, out: (Json[] | { [key: string]: Json })[]): void => {
  if (typeof value !== 'object' || value === null) return;
  out.push(value);
  for (const inner of Object.values(value)) holdersIn(inner, out);
};

const breakOne = (chance: Chance, root: Json): void => {
  const holders: (Json[] | { [key: string]: Json })[] = [];
  holdersIn(root, holders);
  if (holders.length === 0) return;
  const holder = chance.one(holders);
  const keys = Object.keys(holder);
  const key = keys.length > 0 ? chance.one(keys) : 'x';
  const at = holder as { [key: string]: Json };
  switch (chance.whole(0, 4)) {
    case 0:
      at[key] = strange(chance);
      return;
    case 1:
      delete at[key];
      return;
    case 2:
      Object.defineProperty(at, chance.one(KEYS), {
        value: strange(chance),
        enumerable: true,
        configurable: true,
        writable: true,
      });
      return;
    case 3:
      at[key] = JSON.parse(JSON.stringify(chance.one(holders))) as Json;
      return;
    default:
      if (typeof at[key] === 'number') at[key] = (at[key] as number) * chance.one([-1, 1e3, 1e9, 0]);
      else at[key] = strange(chance);
  }
};
