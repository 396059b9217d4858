import { choice, number, px } from '../../document/params';
import type { Outline } from '../../geometry/outline';
import { areaOf, grownArea, intricacyOf, intricacyOfGrowth, outlinesOf, ribbonArea } from '../../geometry/polygons';
import { workOfLooking } from '../room';
import { type AreaRoom, short } from '../types';
import { shapeStep } from '../shapeStep';

type Joins = 'miter' | 'round' | 'bevel';

/** Closed outlines grown or shrunk as one area, open ones as the ribbon this far to both sides; as they are without room. */
export const grownOutlines = (
  outlines: readonly Outline[],
  amount: number,
  join: Joins,
  miterLimit: number,
  { take, takeAreas }: AreaRoom,
): readonly Outline[] => {
  const closed = outlines.filter((o) => o.closed);
  const open = amount > 0 ? outlines.filter((o) => !o.closed) : [];
  if (amount === 0 || !take(0, workOfLooking(outlines)) || !takeAreas(intricacyOf(closed))) return outlines;
  const area = areaOf(closed);
  if (!takeAreas(intricacyOfGrowth(area, open, amount, join, miterLimit))) return outlines;
  return [
    ...(closed.length > 0 ? outlinesOf(grownArea(area, amount, join, miterLimit)) : []),
    ...(open.length > 0
      ? outlinesOf(ribbonArea(open, amount, join, join === 'round' ? 'round' : 'butt', miterLimit))
      : []),
  ];
};

/** Grows or shrinks closed outlines as one area; an open one becomes the ribbon this far to both sides of it. */
export const offset = shapeStep({
  kind: 'offset',
  label: 'Offset',
  params: {
    amount: px('Amount', 10, { min: -5_000, max: 5_000, step: 0.5 }),
    join: choice(
      'Joins',
      [
        { value: 'miter', label: 'Mitre' },
        { value: 'round', label: 'Round' },
        { value: 'bevel', label: 'Bevel' },
      ],
      'miter',
    ),
    miterLimit: number('Mitre limit', 4, { min: 2, max: 100, step: 0.1, when: ['join', 'miter'] }),
  },
  summary: (v) => `${v.amount > 0 ? '+' : ''}${short(v.amount)} px`,
  each: (outlines, { amount, join, miterLimit }, room) => grownOutlines(outlines, amount, join, miterLimit, room),
});
