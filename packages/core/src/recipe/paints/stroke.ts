import { choice, number, numbers, percent, px, type Values } from '../../document/params';
import { IDENTITY } from '../../geometry/matrix';
import { grouped } from '../marks';
import { type Mark, paint, short } from '../types';
import { byDashes } from './dashes';
import { inkOfEach } from './each';
import { INK, inkOf, inkSummary } from './ink';
import { taperedStroke, workOfTaper } from './taper';

const params = {
  ...INK,
  width: px('Width', 8, { min: 0, max: 10_000, step: 0.5 }),
  cap: choice(
    'Caps',
    [
      { value: 'butt', label: 'Flat' },
      { value: 'round', label: 'Round' },
      { value: 'square', label: 'Square' },
    ],
    'round',
  ),
  join: choice(
    'Joins',
    [
      { value: 'miter', label: 'Mitre' },
      { value: 'round', label: 'Round' },
      { value: 'bevel', label: 'Bevel' },
    ],
    'round',
  ),
  miterLimit: number('Mitre limit', 4, { min: 1, max: 100, step: 0.1, when: ['join', 'miter'] }),
  dashes: numbers('Dashes', [], {
    unit: 'px',
    min: 0,
    max: 10_000,
    most: 16,
    hint: 'dash, gap, dash, gap …, each a number or a sum; a dash of 0 with round caps is a dot',
  }),
  fit: number('Fit so many', 0, { min: 0, max: 10_000, whole: true, hint: 'dashes or dots on each outline' }),
  dashOffset: px('Dash offset', 0),
  taperStart: percent('Taper start', 0),
  taperEnd: percent('Taper end', 0),
  tip: percent('Tip width', 0),
};

/** Dashes read dash, gap, dash, gap ...; a dash of no length with round caps is a dot. */
export const stroke = paint({
  kind: 'stroke',
  label: 'Stroke',
  params,
  summary: (v) => `${short(v.width)} px, ${inkSummary(v)}`,
  each: inkOfEach,
  mark: (outlines, alpha, v, take) => {
    if (v.width <= 0) return null;
    const all = byDashes(outlines, v.dashes, v.fit).map((part) => markOf(part, v, take));
    const marks = all.filter((mark) => mark !== null);
    const [only, ...more] = marks;
    if (!only || marks.length < all.length) return null;
    // Of several none shows through another.
    return more.length === 0 ? { ...only, alpha: alpha * only.alpha } : grouped(marks, { alpha });
  },
});

type Part = ReturnType<typeof byDashes>[number];

/** The mark of outlines with the same dashes; null where there is no room for it. */
const markOf = ({ outlines, dashes }: Part, v: Values<typeof params>, take: (work: number) => boolean): Mark | null => {
  const base = { matrix: IDENTITY, ink: inkOf(v), alpha: v.opacity };
  if (v.taperStart > 0 || v.taperEnd > 0) {
    const taper = { start: v.taperStart, end: v.taperEnd, tip: v.tip };
    if (!take(workOfTaper(outlines, dashes, v.dashOffset))) return null;
    const ribbons = taperedStroke(outlines, v.width, taper, dashes, v.dashOffset, v.cap === 'round');
    return { op: 'fill', outlines: ribbons, ...base, rule: 'nonzero' };
  }
  return {
    op: 'stroke',
    outlines,
    ...base,
    width: v.width,
    cap: v.cap,
    join: v.join,
    miterLimit: v.miterLimit,
    dashes,
    dashOffset: v.dashOffset,
  };
};
