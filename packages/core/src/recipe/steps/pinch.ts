import { percent } from '../../document/params';
import { outlineBox } from '../../geometry/bounds';
import { divided } from '../../geometry/flatten';
import type { Outline } from '../../geometry/outline';
import { shortPercent } from '../types';
import { shapeStep } from '../shapeStep';

const mix = (a: number, b: number, t: number) => a + (b - a) * t;

/** Vertices go inward by a share of their way to the middle; the middles of the sides stay and become tips. */
const pinched = (outline: Outline, share: number, centre: readonly [number, number]): Outline => {
  const halves = divided(outline, 2);
  const p = halves.points;
  const out = new Float64Array(p.length);
  const inward = (k: number, axis: number, weight: number) => mix(p[k + axis]!, centre[axis]!, share * weight);
  const vertex = (i: number) => i % 2 === 0;
  for (const axis of [0, 1]) out[axis] = inward(0, axis, 1);
  for (let i = 0; i * 6 + 6 < p.length; i++) {
    const k = i * 6;
    for (const axis of [0, 1]) {
      const [a, b] = vertex(i) ? [1, 0] : [0, 1];
      const start = inward(k, axis, a);
      const end = inward(k + 6, axis, b);
      // A handle goes along with the ends it lies between, and straightens as the tips sharpen.
      const moved = (n: number, t: number) =>
        mix(
          p[k + n + axis]! + (start - p[k + axis]!) * (1 - t) + (end - p[k + 6 + axis]!) * t,
          mix(start, end, t),
          share,
        );
      out[k + 2 + axis] = moved(2, 1 / 3);
      out[k + 4 + axis] = moved(4, 2 / 3);
      out[k + 6 + axis] = end;
    }
  }
  return { closed: outline.closed, points: out };
};

/** Vertices stay, the sides between them swell: their handles go outward by a share of their distance. */
const puffed = (outline: Outline, share: number, centre: readonly [number, number]): Outline => {
  const out = Float64Array.from(outline.points);
  for (let k = 0; k + 6 < out.length; k += 6) {
    for (const at of [k + 2, k + 4]) {
      for (const axis of [0, 1]) out[at + axis] = centre[axis]! + (out[at + axis]! - centre[axis]!) * (1 + share);
    }
  }
  return { closed: outline.closed, points: out };
};

/** About the middle of each outline's box: below nothing it draws vertices inward into a star, above it puffs the sides up. */
export const pinch = shapeStep({
  kind: 'pinch',
  label: 'Pinch',
  params: { amount: percent('Amount', -0.4, { min: -1, max: 4 }) },
  summary: (v) => shortPercent(v.amount),
  each: (outlines, { amount }) =>
    amount === 0
      ? outlines
      : outlines.map((outline) => {
          const box = outlineBox(outline);
          const centre = [(box.left + box.right) / 2, (box.top + box.bottom) / 2] as const;
          return amount < 0 ? pinched(outline, -amount, centre) : puffed(outline, amount, centre);
        }),
});
