import type { Piece } from './pieces';

/** Pieces of a line in the order in which they are seen, from left to right (UAX 9, rule L2). */
export const inSight = (row: readonly Piece[]): Piece[] => {
  const out = [...row];
  for (let level = Math.max(0, ...row.map(({ glyph }) => glyph.level)); level > 0; level--) {
    for (let from = 0; from < out.length; from++) {
      let to = from;
      while (to < out.length && out[to]!.glyph.level >= level) to++;
      out.splice(from, to - from, ...out.slice(from, to).reverse());
      from = to;
    }
  }
  return out;
};
