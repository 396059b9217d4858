import { choice, number, px } from '../../document/params';
import { areaOf, grownArea, intricacyOf, outlinesOf, ribbonArea } from '../../geometry/polygons';
import { short } from '../types';
import { shapeStep } from '../shapeStep';

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
  each: (outlines, { amount, join, miterLimit }, { takeAreas }) => {
    if (amount === 0 || !takeAreas(intricacyOf(outlines, amount, join))) return outlines;
    const closed = outlines.filter((o) => o.closed);
    const open = outlines.filter((o) => !o.closed);
    return [
      ...(closed.length > 0 ? outlinesOf(grownArea(areaOf(closed), amount, join, miterLimit)) : []),
      ...(open.length > 0 && amount > 0
        ? outlinesOf(ribbonArea(open, amount, join, join === 'round' ? 'round' : 'butt', miterLimit))
        : []),
    ];
  },
});
