import { choice } from '../../document/params';
import { IDENTITY } from '../../geometry/matrix';
import { cover } from '../types';

/** Outlines of its own show or hide parts of what is drawn above it in its group; the outlines above go on as they are. */
export const mask = cover({
  kind: 'mask',
  label: 'Mask',
  params: {
    mode: choice(
      'Mask',
      [
        { value: 'show', label: 'Shows' },
        { value: 'hide', label: 'Hides' },
      ],
      'show',
    ),
  },
  holds: true,
  summary: (v) => (v.mode === 'show' ? 'Shows what is inside' : 'Hides what is inside'),
  cover: (marks, { mode }, own) => {
    const clip = { outlines: own.shapes.flatMap((s) => s.outlines), matrix: IDENTITY, mode };
    return [{ op: 'group', marks, alpha: 1, blend: 'normal', clip }];
  },
});
