import {
  choice,
  degrees,
  number,
  numbers,
  percent,
  point,
  px,
  switchParam,
  text,
  type Values,
} from '../../document/params';
import type { Point } from '../../document/types';
import { boxAbout, boxOutline } from '../../geometry/bounds';
import { monotoneThrough, type Outline, OutlineWriter, straightThrough } from '../../geometry/outline';
import { turnsOf } from '../../motion/stagger';
import { framesApart, order, seed } from '../inTurn';
import { type Datum, type Shape, source } from '../types';
import { onCircle } from './polygon';
import { wedgeOutlines } from './wedge';

/** Numbers of one chart. */
const MOST_NUMBERS = 200;

const UPRIGHT = ['drawn', 'columns', 'bars', 'line', 'area'] as const;
const PIE = ['drawn', 'pie'] as const;

const PARAMS = {
  drawn: choice(
    'Drawn as',
    [
      { value: 'columns', label: 'Columns' },
      { value: 'bars', label: 'Bars' },
      { value: 'line', label: 'Line' },
      { value: 'area', label: 'Area' },
      { value: 'pie', label: 'Pie' },
    ],
    'columns',
  ),
  numbers: numbers('Numbers', [40, 65, 52, 88, 70], {
    unit: '',
    min: -1e12,
    max: 1e12,
    most: MOST_NUMBERS,
    named: 'names',
    hint: 'with commas or spaces between them, or pasted from a table, with their names',
  }),
  names: text('Names', '', { most: 5_000, lines: 'many', hint: 'one a line' }),
  grown: percent('Grown', 1, { max: 2 }),
  stagger: framesApart(0),
  order,
  seed,
  width: px('Width', 600, { min: 0, beside: 'height' }),
  height: px('Height', 400, { min: 0, beside: 'width' }),
  centre: point('Centre', [0, 0]),
  top: number('Full at', 0, { min: 0, max: 1e12, hint: '0: the largest', when: UPRIGHT }),
  gap: percent('Gap', 0.3, { max: 0.95, when: ['drawn', 'columns', 'bars'] }),
  smooth: switchParam('Smooth', false, { when: ['drawn', 'line', 'area'] }),
  inner: percent('Inner', 0, { max: 0.99, when: PIE }),
  start: degrees('Start', 0, { when: PIE }),
  spread: px('Spread', 0, { when: PIE }),
  picked: number('Picked', 0, { min: 0, max: MOST_NUMBERS, whole: true, still: true, hint: '0: none', when: PIE }),
  out: px('Moves out', 0, { when: PIE }),
} as const;
type ChartValues = Values<typeof PARAMS>;

/** A number as its turn has come: what it is at that frame, and how far it has grown. */
type Part = Omit<Datum, 'foot' | 'end' | 'away'>;

const partsOf = (v: ChartValues, earlier: (frames: number) => ChartValues): readonly Part[] => {
  const names = v.names.split('\n');
  const turns = turnsOf(
    v.numbers.map((): Point => [0, 0]),
    v.order,
    v.seed,
  );
  const bare = v.numbers.map((own, i) => {
    const later = v.stagger * (turns[i] as number);
    const then = later === 0 ? v : earlier(later);
    return { number: then.numbers[i] ?? own, grown: then.grown, name: names[i]?.trim() ?? '' };
  });
  const sum = bare.reduce((all, part) => all + Math.max(0, part.number), 0);
  return bare.map((part) => ({ ...part, share: sum > 0 ? Math.max(0, part.number) / sum : 0 }));
};

/** Where something is on the way from what stands lowest, 0, to what stands highest, 1: nothing is always among it. */
const scaleOf = (v: ChartValues, parts: readonly Part[]) => {
  const all = parts.map((part) => part.number);
  const low = Math.min(0, ...all);
  const high = v.top > 0 ? v.top : Math.max(0, ...all);
  return (value: number) => (high > low ? (value - low) / (high - low) : 0);
};

/** A box between two corners, whichever is where; nothing where it has no area. */
const between = ([ax, ay]: Point, [bx, by]: Point): readonly Outline[] =>
  ax === bx || ay === by
    ? []
    : [
        boxOutline({
          left: Math.min(ax, bx),
          top: Math.min(ay, by),
          right: Math.max(ax, bx),
          bottom: Math.max(ay, by),
        }),
      ];

/** Columns side by side from the base line, or bars one below another. */
const barShapes = (v: ChartValues, parts: readonly Part[]): readonly Shape[] => {
  const { left, top, right, bottom } = boxAbout(v.centre, v);
  const at = scaleOf(v, parts);
  const isUpright = v.drawn === 'columns';
  const slot = (isUpright ? right - left : bottom - top) / parts.length;
  const half = (slot * (1 - v.gap)) / 2;
  const placed = (along: number, value: number): Point =>
    isUpright ? [left + along, bottom - at(value) * (bottom - top)] : [left + at(value) * (right - left), top + along];
  return parts.map((part, i) => {
    const middle = (i + 0.5) * slot;
    const value = part.number * part.grown;
    const way = part.number < 0 ? -1 : 1;
    return {
      outlines: between(placed(middle - half, 0), placed(middle + half, value)),
      alpha: 1,
      data: [{ ...part, foot: placed(middle, 0), end: placed(middle, value), away: isUpright ? [0, -way] : [way, 0] }],
    };
  });
};

/** A line from the first number to the last, or the area between it and the base line. */
const lineShapes = (v: ChartValues, parts: readonly Part[]): readonly Shape[] => {
  const { left, top, right, bottom } = boxAbout(v.centre, v);
  const at = scaleOf(v, parts);
  const y = (value: number) => bottom - at(value) * (bottom - top);
  const x = (i: number) => (parts.length > 1 ? left + (i / (parts.length - 1)) * (right - left) : v.centre[0]);
  const data = parts.map((part, i): Datum => ({
    ...part,
    foot: [x(i), y(0)],
    end: [x(i), y(part.number * part.grown)],
    away: [0, part.number < 0 ? 1 : -1],
  }));
  const seen = parts.length > 1 && parts.some((part) => part.grown > 0);
  if (!seen) return [{ outlines: [], alpha: 1, data }];
  const points = data.map(({ end }) => end);
  const line = v.smooth ? monotoneThrough(points) : straightThrough(points, false);
  if (v.drawn === 'line') return [{ outlines: [line], alpha: 1, data }];
  const area = new OutlineWriter(left, y(0)).line(...(points[0] as Point)).along(line);
  return [{ outlines: [area.line(right, y(0)).close()], alpha: 1, data }];
};

/** Shares of a disc or ring, clockwise; what is below nothing has none. */
const pieShapes = (v: ChartValues, parts: readonly Part[]): readonly Shape[] => {
  const whole = Math.min(v.width, v.height) / 2;
  let start = v.start;
  return parts.map((part, i) => {
    const end = start + part.share * Math.min(1, Math.max(0, part.grown)) * 360;
    const middle = (start + end) / 2;
    const away = onCircle([0, 0], 1, middle);
    const centre = onCircle(v.centre, v.spread + (v.picked === i + 1 ? v.out : 0), middle);
    const wedge = { start, end, radius: whole, inner: v.inner * whole, centre };
    start = end;
    return {
      outlines: wedgeOutlines({ ...wedge, measure: 'angles', share: 0 }),
      alpha: 1,
      data: [{ ...part, foot: onCircle(centre, wedge.inner, middle), end: onCircle(centre, whole, middle), away }],
    };
  });
};

const shapesOf = (v: ChartValues, earlier: (frames: number) => ChartValues): readonly Shape[] => {
  const parts = partsOf(v, earlier);
  if (parts.length === 0) return [];
  if (v.drawn === 'pie') return pieShapes(v, parts);
  return v.drawn === 'line' || v.drawn === 'area' ? lineShapes(v, parts) : barShapes(v, parts);
};

/**
 * Numbers as columns, bars, a line, an area or a pie, each of them a shape of its own but for a line and an area. Each number plays
 * its keyframes and those of how far it has grown so many frames later as its turn is.
 */
export const chart = source({
  kind: 'chart',
  label: 'Chart',
  params: PARAMS,
  summary: (v) => `${v.drawn[0]?.toUpperCase()}${v.drawn.slice(1)} of ${v.numbers.length}`,
  shapes: shapesOf,
  outlines: (v) => shapesOf(v, () => v).flatMap((shape) => shape.outlines),
});
