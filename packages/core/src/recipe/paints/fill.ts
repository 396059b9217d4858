import { choice } from '../../document/params';
import { IDENTITY } from '../../geometry/matrix';
import { paint } from '../types';
import { INK, inkOf, inkSummary } from './ink';

export const fill = paint({
  kind: 'fill',
  label: 'Fill',
  params: {
    ...INK,
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
  mark: (outlines, alpha, v) => ({
    op: 'fill',
    outlines,
    matrix: IDENTITY,
    ink: inkOf(v),
    alpha: alpha * v.opacity,
    rule: v.rule,
  }),
});
