import { choice, percent } from '../../document/params';
import { IDENTITY } from '../../geometry/matrix';
import { paint } from '../types';
import { inkOfEach } from './each';
import { INK, inkOf, inkSummary } from './ink';
import { throughOval } from './oval';

export const fill = paint({
  kind: 'fill',
  label: 'Fill',
  params: {
    ...INK,
    breadth: percent('Breadth', 1, { min: 0.01, max: 100, when: ['style', 'radial'] }),
    rule: choice(
      'Overlaps',
      [
        { value: 'nonzero', label: 'Filled' },
        { value: 'evenodd', label: 'Holes' },
      ],
      'nonzero',
    ),
  },
  summary: inkSummary,
  each: inkOfEach,
  mark: (outlines, alpha, v) => ({
    op: 'fill',
    ...(v.style === 'radial' && v.breadth !== 1
      ? throughOval(outlines, v.from, v.to, v.breadth)
      : { outlines, matrix: IDENTITY }),
    ink: inkOf(v),
    alpha: alpha * v.opacity,
    rule: v.rule,
  }),
});
