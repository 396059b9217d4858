import { choice, degrees, number, percent, point, px, type Values } from '../../document/params';
import { type Box, grown, intersection } from '../../geometry/bounds';
import { IDENTITY, type Matrix, multiply, placed, translation } from '../../geometry/matrix';
import { boxOfMarks, flowThrough, seamless } from '../marks';
import { workOfCopy } from '../room';
import { type Flow, type Mark, short, step } from '../types';

/** A schema limit, so that a hostile file is refused; nested repeaters are bounded by the room a layer has. */
export const MOST_COPIES = 1000;

const LINE = ['layout', 'line'] as const;
const CIRCLE = ['layout', 'circle'] as const;
const GRID = ['layout', 'grid'] as const;

const PARAMS = {
  layout: choice(
    'Layout',
    [
      { value: 'line', label: 'In line' },
      { value: 'circle', label: 'Circle' },
      { value: 'grid', label: 'Grid' },
    ],
    'line',
  ),
  copies: number('Copies', 3, { min: 0, max: MOST_COPIES, step: 0.1, when: ['layout', 'line', 'circle'] }),
  columns: number('Columns', 4, { min: 1, max: 100, when: GRID }),
  rows: number('Rows', 3, { min: 1, max: 100, when: GRID }),
  spacing: point('Spacing', [120, 120], { when: GRID }),
  radius: px('Radius', 200, { when: CIRCLE }),
  sweep: degrees('Round by', 360, { when: CIRCLE }),
  first: degrees('First at', 0, { when: CIRCLE }),
  facing: choice(
    'Copies stand',
    [
      { value: 'outward', label: 'Outward' },
      { value: 'upright', label: 'Upright' },
    ],
    'outward',
    { when: CIRCLE },
  ),
  delay: number('Copy delay', 0, { unit: 'frames', min: -10_000, max: 10_000, step: 0.1 }),
  position: point('Move', [100, 0], { when: LINE }),
  rotation: degrees('Turn', 0, { when: LINE }),
  scale: point('Scale', [1, 1], { unit: 'percent', limit: 100, step: 0.01, when: LINE }),
  pivot: point('Pivot', [0, 0], { when: LINE }),
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
} as const;
type RepeaterValues = Values<typeof PARAMS>;

/** Copies that are grown or moved further than this are left out: soon after, numbers end. */
const MOST_GROWTH = 1e9;

const isNear = (m: Matrix): boolean => m.every((x) => Math.abs(x) <= MOST_GROWTH);

/** Each copy is moved and turned k times as far, and scaled to the k-th power. */
const inLine = (k: number, v: RepeaterValues): Matrix => {
  if (k === 0) return IDENTITY;
  const power = (base: number) => Math.sign(base) ** k * Math.abs(base) ** k;
  return placed({
    position: [v.pivot[0] + v.position[0] * k, v.pivot[1] + v.position[1] * k],
    pivot: v.pivot,
    rotation: v.rotation * k,
    scale: [power(v.scale[0]), power(v.scale[1])],
  });
};

/** Round the origin, clockwise from the top. A full turn leaves the first place to the first copy alone; a part of one reaches both its ends. */
const inCircle = (k: number, v: RepeaterValues): Matrix => {
  const gaps = Math.abs(v.sweep) >= 360 ? v.copies : Math.max(1, v.copies - 1);
  const rotation = v.first + (k * v.sweep) / Math.max(gaps, 1e-6);
  const turned = placed({ position: [0, 0], pivot: [0, 0], rotation, scale: [1, 1] });
  const out = multiply(turned, translation(0, -v.radius));
  return v.facing === 'outward' ? out : translation(out[4], out[5]);
};

/** Row by row, about the origin. */
const inGrid = (k: number, v: RepeaterValues): Matrix => {
  const [columns, rows] = [Math.round(v.columns), Math.round(v.rows)];
  const [column, row] = [k % columns, Math.floor(k / columns)];
  return translation((column - (columns - 1) / 2) * v.spacing[0], (row - (rows - 1) / 2) * v.spacing[1]);
};

const outlineCount = ({ shapes }: Flow): number => shapes.reduce((sum, s) => sum + s.outlines.length, 0);

/** Pixels between copies that are drawn as touching. */
const NEAR = 0.01;

/** Whether any copy touches the next one. */
const touch = (copies: readonly { readonly marks: readonly Mark[] }[]): boolean => {
  let before: Box | null = null;
  for (const { marks } of copies) {
    const box = boxOfMarks(marks);
    if (before && box && intersection(grown(before, NEAR), box)) return true;
    before = box;
  }
  return false;
};

const LAYOUTS = { line: inLine, circle: inCircle, grid: inGrid } as const;

const countOf = (v: RepeaterValues): number =>
  v.layout === 'grid' ? Math.round(v.columns) * Math.round(v.rows) : v.copies;

/**
 * Copies of everything above, in a line, round the origin or in a grid. Copy k plays what stands above
 * it `delay × k` frames later. A last part of a copy is faded by its part.
 */
export const repeater = step({
  kind: 'repeater',
  label: 'Repeater',
  params: PARAMS,
  copies: true,
  onDrawn: true,
  summary: (v) =>
    `${v.layout === 'grid' ? `${Math.round(v.columns)} × ${Math.round(v.rows)}` : `× ${short(v.copies)}`}${v.delay === 0 ? '' : `, ${short(v.delay)} f apart`}`,
  apply: (above, v): Flow => {
    const count = countOf(v);
    const wanted = Math.ceil(count - 1e-9);
    let last: Flow | null = null;
    let work = 0;
    const copies: Flow[] = [];
    for (let k = 0; k < wanted; k++) {
      const flow = above.at(above.frame - k * v.delay, { order: k, count: wanted });
      // A copy of nothing takes room too, or nested repeaters of nothing would run for ever.
      if (flow !== last) [last, work] = [flow, workOfCopy(flow)];
      if (!above.take(1 + outlineCount(flow) + flow.marks.length, work)) {
        // What stands above is made already: without room for copies it is shown as it is.
        if (k === 0) return flow;
        break;
      }
      const m = LAYOUTS[v.layout](k, v);
      if (!isNear(m)) continue;
      const share = wanted > 1 ? k / (wanted - 1) : 0;
      const alpha = (v.startOpacity + (v.endOpacity - v.startOpacity) * share) * Math.min(1, count - k);
      copies.push(flowThrough(m, flow, alpha));
    }
    if (v.order === 'behind') copies.reverse();
    const marks = copies.flatMap((c) => c.marks);
    return { shapes: copies.flatMap((c) => c.shapes), marks: touch(copies) ? seamless(marks) : marks };
  },
});
