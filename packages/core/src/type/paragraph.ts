/** What Unicode says of a line of text: which way each letter runs, and where lines may end. */
import bidiFactory from 'bidi-js';
import LineBreaker from 'linebreak';

const bidi = bidiFactory();

/** Letters, marks and digits of scripts that run from right to left, and what turns a text round (UAX 9, tables 2 and 4). */
const LEFTWARD =
  /[\u0590-\u08ff\u200f\u202b\u202e\u2067\ufb1d-\ufdff\ufe70-\ufefe\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;

/** The level of each UTF-16 unit (UAX 9), the first strong letter saying which way it all runs; null where all run from left to right. */
export const levelsOf = (text: string): Uint8Array | null =>
  LEFTWARD.test(text) ? bidi.getEmbeddingLevels(text, 'auto').levels : null;

/** Where a line may end inside a text though no space stands before (UAX 14): indexes of UTF-16 units that would begin the next. */
export const breaksOf = (text: string): ReadonlySet<number> => {
  const breaks = new Set<number>();
  const breaker = new LineBreaker(text);
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    if (next.position < text.length && !/\s/.test(text[next.position - 1]!)) breaks.add(next.position);
  }
  return breaks;
};
