import { choice, color, percent, px } from '../../document/params';
import type { Color } from '../../document/types';
import { boxOutline } from '../../geometry/bounds';
import { speckled } from '../../picture/places';
import { boxOfMarks, flatFill, grouped } from '../marks';
import { workOfMarks } from '../room';
import { cover, type Effect, type Mark, type PictureCut, short } from '../types';
import { changedBy } from './effect';
import { aside, firmer, silhouette } from './shadow';

const byMarks = (mode: PictureCut['mode'], marks: readonly Mark[]): readonly [PictureCut] => [
  { mode, marks, inverted: false, strength: 1 },
];

interface Light {
  readonly over: Color;
  readonly softness: number;
  readonly spread: number;
}

/** Light from the edge of marks inwards: all round what they show, in soft edges; null where they show nothing. */
const lightInside = (marks: readonly Mark[], { over, softness, spread }: Light): Mark | null => {
  const box = boxOfMarks(marks);
  if (!box) return null;
  const soft = silhouette(marks, { over: over.slice(0, 7), softness, spread: 0, strength: 1 });
  return firmer([grouped([flatFill([boxOutline(box)], over)], { cuts: byMarks('hide', [soft]) })], spread);
};

/** What lies over marks, and shows no farther than they do: source-atop of Compositing and Blending Level 1, 9.1.10. */
const atop = (over: Mark, marks: readonly Mark[]): Mark =>
  grouped(
    [
      grouped(marks, { cuts: byMarks('hide', [over]) }),
      grouped([over], { cuts: byMarks('add', marks), blend: 'plus' }),
    ],
    { blend: 'within' },
  );

/** Light that falls apart into specks of a pixel. */
const speckleBy = (strength: number): Effect => ({
  reach: 0,
  pixels: (data, width, height, { scale, origin }) =>
    speckled({ data, width, height }, { size: scale, strength, seed: 1 }, origin),
  svg: () => null,
});

/** Light around what is above it, or from its edge inwards. */
export const glow = cover({
  kind: 'glow',
  label: 'Glow',
  again: true,
  params: {
    side: choice(
      'Light',
      [
        { value: 'outside', label: 'Outside' },
        { value: 'inside', label: 'Inside' },
      ],
      'outside',
    ),
    color: color('Colour', '#FFE3A3'),
    size: px('Size', 24, { min: 0, max: 1_000 }),
    spread: percent('Spread', 0.3),
    grain: percent('Grain', 0),
    strength: percent('Strength', 1),
  },
  summary: (v) => `${short(v.size)} px${v.side === 'inside' ? ' inside' : ''}`,
  cover: (marks, { side, color: over, size, spread, grain, strength }, { room }) => {
    const speckledLight = (light: Mark) =>
      grouped([grain > 0 ? changedBy(speckleBy(grain), [light]) : light], { alpha: strength });
    if (side === 'outside') {
      return [aside(speckledLight(silhouette(marks, { over, softness: size, spread, strength: 1 }))), ...marks];
    }
    // It is cut by them, and they by it.
    if (!room.take(0, 2 * workOfMarks(marks))) return marks;
    const light = lightInside(marks, { over, softness: size, spread });
    return light ? [atop(speckledLight(light), marks)] : marks;
  },
});
