/** Dashes that fit what they run along. */
import { arcLength } from '../../geometry/length';
import type { Outline } from '../../geometry/outline';

/** What is typed nothing for: as long as the gaps between them. */
const EVEN: readonly number[] = [1, 1];

/**
 * Dashes and gaps in the proportions of a pattern, of which there are so many patterns along an outline: a closed one ends with
 * a gap, an open one with its last dash. Empty for an outline without length.
 */
export const fittedDashes = (dashes: readonly number[], count: number, outline: Outline): readonly number[] => {
  const typed = dashes.some((d) => d > 0) ? dashes : EVEN;
  const pattern = typed.length % 2 === 0 ? typed : [...typed, ...typed];
  const whole = pattern.reduce((sum, d) => sum + d, 0);
  const length = arcLength(outline);
  if (length <= 0) return [];
  const over = count * whole - (outline.closed ? 0 : (pattern.at(-1) as number));
  // Of one dot on an open line there is nothing to measure: it stands at the beginning.
  const by = over > 0 ? length / over : length;
  return pattern.map((d) => d * by);
};

/** Outlines by the dashes that fit them: those that are as long share theirs. */
export const byDashes = (
  outlines: readonly Outline[],
  dashes: readonly number[],
  count: number,
): readonly { readonly dashes: readonly number[]; readonly outlines: readonly Outline[] }[] => {
  if (count <= 0) return [{ dashes: dashes.some((d) => d > 0) ? dashes : [], outlines }];
  const alike = new Map<string, { dashes: readonly number[]; outlines: Outline[] }>();
  for (const outline of outlines) {
    const own = fittedDashes(dashes, count, outline);
    const key = own.map((d) => d.toFixed(4)).join();
    const known = alike.get(key);
    if (known) known.outlines.push(outline);
    else alike.set(key, { dashes: own, outlines: [outline] });
  }
  return [...alike.values()];
};
