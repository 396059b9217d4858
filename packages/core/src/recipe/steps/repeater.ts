import { choice, degrees, number, percent, point } from '../../document/params';
import { IDENTITY, type Matrix, placed } from '../../geometry/matrix';
import { transformed } from '../../geometry/outline';
import { faded, markThrough } from '../marks';
import { type Flow, type Mark, type Shape, short, step } from '../types';

/** A schema limit, so that a hostile file is refused; nested repeaters are bounded by the room a layer has. */
export const MOST_COPIES = 1000;

const copyMatrix = (
  k: number,
  v: {
    position: readonly [number, number];
    pivot: readonly [number, number];
    rotation: number;
    scale: readonly [number, number];
  },
): Matrix => {
  if (k === 0) return IDENTITY;
  const power = (base: number) => Math.sign(base) ** k * Math.abs(base) ** k;
  return placed({
    position: [v.pivot[0] + v.position[0] * k, v.pivot[1] + v.position[1] * k],
    pivot: v.pivot,
    rotation: v.rotation * k,
    scale: [power(v.scale[0]), power(v.scale[1])],
  });
};

/**
 * Copies of everything above. Copy k is moved and turned k times as far and scaled to the k-th power,
 * and plays what stands above it `delay × k` frames later. A last part of a copy is faded by its part.
 */
export const repeater = step({
  kind: 'repeater',
  label: 'Repeater',
  params: {
    copies: number('Copies', 3, { min: 0, max: MOST_COPIES, step: 0.1 }),
    delay: number('Copy delay', 0, { unit: 'frames', min: -10_000, max: 10_000, step: 0.1 }),
    position: point('Move', [100, 0]),
    rotation: degrees('Turn', 0),
    scale: point('Scale', [1, 1], { unit: 'percent', limit: 100, step: 0.01 }),
    pivot: point('Pivot', [0, 0]),
    startOpacity: percent('Fade from', 1),
    endOpacity: percent('Fade to', 1),
    order: choice(
      'Later ones',
      [
        { value: 'in-front', label: 'In front' },
        { value: 'behind', label: 'Behind' },
      ],
      'in-front',
    ),
  },
  summary: (v) => `× ${short(v.copies)}${v.delay === 0 ? '' : `, ${short(v.delay)} f apart`}`,
  apply: (above, v): Flow => {
    const wanted = Math.ceil(v.copies - 1e-9);
    const copies: { shapes: Shape[]; marks: readonly Mark[] }[] = [];
    for (let k = 0; k < wanted; k++) {
      const flow = above.at(above.frame - k * v.delay);
      // A copy of nothing takes room too, or nested repeaters of nothing would run for ever.
      if (!above.take(1 + flow.shapes.length + flow.marks.length)) break;
      const m = copyMatrix(k, v);
      const along = wanted > 1 ? k / (wanted - 1) : 0;
      const alpha = (v.startOpacity + (v.endOpacity - v.startOpacity) * along) * Math.min(1, v.copies - k);
      copies.push({
        shapes: flow.shapes.map((s) => ({ outline: transformed(m, s.outline), alpha: s.alpha * alpha })),
        marks: faded(
          flow.marks.map((mark) => markThrough(m, mark)),
          alpha,
        ),
      });
    }
    if (v.order === 'behind') copies.reverse();
    return { shapes: copies.flatMap((c) => c.shapes), marks: copies.flatMap((c) => c.marks) };
  },
});
