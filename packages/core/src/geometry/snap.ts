/** Snapping: what a moved box or point comes to stand on, and the lines that show it. */
import type { Point } from '../document/types';
import { type Box, cornersOf } from './bounds';

export type Axis = 0 | 1;

/** A line that things snap to: upright at an x (axis 0) or level at a y (axis 1). */
export interface SnapLine {
  readonly axis: Axis;
  readonly at: number;
  /** What it belongs to along the other axis, so that the line shown reaches it. */
  readonly from: number;
  readonly to: number;
}

export interface SnapTargets {
  readonly lines: readonly SnapLine[];
  /** Corners and vertices. */
  readonly points: readonly Point[];
  /** Boxes whose spacing is kept. */
  readonly boxes: readonly Box[];
}

/** The lines of a box at shares of its width and its height. */
const linesAt = (box: Box, shares: readonly number[]): SnapLine[] => [
  ...shares.map((s): SnapLine => ({
    axis: 0,
    at: box.left + s * (box.right - box.left),
    from: box.top,
    to: box.bottom,
  })),
  ...shares.map((s): SnapLine => ({
    axis: 1,
    at: box.top + s * (box.bottom - box.top),
    from: box.left,
    to: box.right,
  })),
];

/** The edges and the middle of a box. */
export const linesOf = (box: Box): SnapLine[] => linesAt(box, [0, 1 / 2, 1]);

/** The edges of a box, its middle, its quarters and its thirds: what parts of a shape are put on. */
export const fractionsOf = (box: Box): SnapLine[] => linesAt(box, [0, 1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4, 1]);

/** A stretch between two things, shown with its length. */
export interface Gap {
  readonly axis: Axis;
  readonly from: number;
  readonly to: number;
  /** Where it is shown along the other axis. */
  readonly at: number;
}

export interface Snapped {
  /** What is to be added to the movement. */
  readonly by: Point;
  readonly lines: readonly SnapLine[];
  readonly gaps: readonly Gap[];
}

const low = (box: Box, axis: Axis) => (axis === 0 ? box.left : box.top);
const high = (box: Box, axis: Axis) => (axis === 0 ? box.right : box.bottom);
const middle = (box: Box, axis: Axis) => (low(box, axis) + high(box, axis)) / 2;
const other = (axis: Axis): Axis => (axis === 0 ? 1 : 0);

interface Candidate {
  readonly by: number;
  readonly lines: readonly SnapLine[];
  readonly gaps: readonly Gap[];
}

const nearest = (candidates: readonly Candidate[], within: number): Candidate | null =>
  candidates.reduce<Candidate | null>(
    (best, c) => (Math.abs(c.by) <= within && (!best || Math.abs(c.by) < Math.abs(best.by) - 1e-9) ? c : best),
    null,
  );

const shiftedBox = (box: Box, [dx, dy]: Point): Box => ({
  left: box.left + dx,
  right: box.right + dx,
  top: box.top + dy,
  bottom: box.bottom + dy,
});

/** Places along an axis where a box stands as far from one neighbour as it or they stand from another. */
const spacings = (box: Box, boxes: readonly Box[], axis: Axis): Candidate[] => {
  const across = other(axis);
  const beside = boxes
    .filter((b) => low(b, across) < high(box, across) && high(b, across) > low(box, across))
    .sort((a, b) => low(a, axis) - low(b, axis));
  const size = high(box, axis) - low(box, axis);
  const out: Candidate[] = [];
  const at = middle(box, across);
  for (let i = 0; i + 1 < beside.length; i++) {
    const [a, b] = [beside[i] as Box, beside[i + 1] as Box];
    const gap = low(b, axis) - high(a, axis);
    if (gap <= 0) continue;
    const show = (from: number, to: number): Gap => ({ axis, from, to, at });
    const offer = (start: number, gaps: Gap[]) => out.push({ by: start - low(box, axis), lines: [], gaps });
    // Between the two, after the second, before the first.
    if (gap > size) {
      const each = (gap - size) / 2;
      const start = high(a, axis) + each;
      offer(start, [show(high(a, axis), start), show(start + size, low(b, axis))]);
    }
    offer(high(b, axis) + gap, [show(high(a, axis), low(b, axis)), show(high(b, axis), high(b, axis) + gap)]);
    offer(low(a, axis) - gap - size, [show(low(a, axis) - gap, low(a, axis)), show(high(a, axis), low(b, axis))]);
  }
  return out;
};

/** How far a box stands along a line from what the line belongs to. */
const distances = (lines: readonly SnapLine[], box: Box): Gap[] =>
  lines.flatMap((line): Gap[] => {
    const along = other(line.axis);
    const [from, to] = [low(box, along), high(box, along)];
    if (line.to < from) return [{ axis: along, from: line.to, to: from, at: line.at }];
    if (line.from > to) return [{ axis: along, from: to, to: line.from, at: line.at }];
    return [];
  });

/** How a box that is being moved snaps: each axis by itself, to the nearest line within a distance. */
export const snapBox = (box: Box, targets: SnapTargets, within: number): Snapped => {
  const own = linesOf(box);
  const along = (axis: Axis): Candidate | null => {
    const candidates = targets.lines.flatMap((line): Candidate[] =>
      line.axis !== axis
        ? []
        : own.filter((o) => o.axis === axis).map((o) => ({ by: line.at - o.at, lines: [line], gaps: [] })),
    );
    for (const p of targets.points) {
      for (const corner of cornersOf(box)) {
        const across = other(axis);
        // A corner snaps to a vertex that it is near to along both axes.
        if (Math.abs(p[across] - corner[across]) > within * 2) continue;
        const line: SnapLine = { axis, at: p[axis], from: p[across], to: p[across] };
        candidates.push({ by: p[axis] - corner[axis], lines: [line], gaps: [] });
      }
    }
    return nearest([...candidates, ...spacings(box, targets.boxes, axis)], within);
  };
  const [x, y] = [along(0), along(1)];
  const by: Point = [x?.by ?? 0, y?.by ?? 0];
  const now = shiftedBox(box, by);
  const lines = [...(x?.lines ?? []), ...(y?.lines ?? [])].map((line) => ({
    ...line,
    from: Math.min(line.from, low(now, other(line.axis))),
    to: Math.max(line.to, high(now, other(line.axis))),
  }));
  return {
    by,
    lines,
    gaps: [...(x?.gaps ?? []), ...(y?.gaps ?? []), ...distances([...(x?.lines ?? []), ...(y?.lines ?? [])], now)],
  };
};

/** How a point that is being moved snaps: to a point near it, else to lines. */
export const snapPoint = (point: Point, targets: SnapTargets, within: number): Snapped => {
  const near = targets.points
    .map((p) => ({ p, d: Math.hypot(p[0] - point[0], p[1] - point[1]) }))
    .sort((a, b) => a.d - b.d)[0];
  if (near && near.d <= within) {
    const { p } = near;
    const lines: SnapLine[] = [
      { axis: 0, at: p[0], from: p[1], to: p[1] },
      { axis: 1, at: p[1], from: p[0], to: p[0] },
    ];
    return { by: [p[0] - point[0], p[1] - point[1]], lines, gaps: [] };
  }
  const box = { left: point[0], right: point[0], top: point[1], bottom: point[1] };
  return snapBox(box, { ...targets, points: [], boxes: [] }, within);
};

export type Alignment = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom';

/** The way that each box goes to be aligned within a frame. */
export const aligned = (boxes: readonly Box[], frame: Box, how: Alignment): Point[] => {
  const axis: Axis = how === 'left' || how === 'centre' || how === 'right' ? 0 : 1;
  const place = (b: Box) =>
    how === 'left' || how === 'top'
      ? low(b, axis)
      : how === 'right' || how === 'bottom'
        ? high(b, axis)
        : middle(b, axis);
  return boxes.map((b) => {
    const by = place(frame) - place(b);
    return axis === 0 ? [by, 0] : [0, by];
  });
};

/**
 * The way that each box goes so that the gaps between them are equal: from the outermost to the outermost,
 * or from end to end of a stretch.
 */
export const distributed = (
  boxes: readonly Box[],
  axis: Axis,
  stretch: readonly [from: number, to: number] | null = null,
): Point[] => {
  const order = boxes.map((_, i) => i).sort((i, j) => middle(boxes[i] as Box, axis) - middle(boxes[j] as Box, axis));
  const [first, last] = [boxes[order[0] ?? 0], boxes[order.at(-1) ?? 0]];
  const ways = boxes.map((): Point => [0, 0]);
  if (!first || !last || boxes.length < (stretch ? 2 : 3)) return ways;
  const [from, to] = stretch ?? [low(first, axis), high(last, axis)];
  const sizes = order.map((i) => high(boxes[i] as Box, axis) - low(boxes[i] as Box, axis));
  const free = to - from - sizes.reduce((sum, s) => sum + s, 0);
  const gap = free / (boxes.length - 1);
  let at = from;
  order.forEach((i, n) => {
    const by = at - low(boxes[i] as Box, axis);
    ways[i] = axis === 0 ? [by, 0] : [0, by];
    at += (sizes[n] as number) + gap;
  });
  return ways;
};
