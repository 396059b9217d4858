/** Letters moved together or apart by hand. */

/** Reads `AV -40, To 20`; what cannot be read is passed over. */
export const readPairs = (text: string): ReadonlyMap<string, number> => {
  const out = new Map<string, number>();
  for (const part of text.split(',')) {
    const [, pair, amount] = /^\s*(\S{2})\s+(-?\d+(?:\.\d+)?)\s*$/u.exec(part) ?? [];
    if (pair && amount !== undefined) out.set(pair, Number(amount));
  }
  return out;
};

export const writePairs = (pairs: ReadonlyMap<string, number>): string =>
  [...pairs]
    .filter(([, amount]) => amount !== 0)
    .map(([pair, amount]) => `${pair} ${amount}`)
    .join(', ');

/** The code point at an index; '' past the end. */
const letterAt = (text: string, at: number): string => {
  const code = text.codePointAt(at);
  return code === undefined ? '' : String.fromCodePoint(code);
};

/** How much the letters at two places of a text are moved apart, in thousandths of an em. */
export const pairsIn = (text: string, pairs: string): ((first: number, second: number) => number) => {
  const known = readPairs(pairs);
  return (first, second) => known.get(letterAt(text, first) + letterAt(text, second)) ?? 0;
};
