/** A span cut in two: eases that, played one after the other, are what the whole was. */
import { EASE_LIMITS } from '../../document/limits';
import type { DrawnPoint, Ease } from '../../document/types';
import { drawn } from './drawn';
import { curveOf, EASES } from './table';
import type { Curve } from './types';

type Bezier = Extract<Ease, { kind: 'bezier' }>;

/** A cubic from 0 to 1 cut in two: the control points of each half, and the point between them. */
interface Cut {
  readonly before: readonly [number, number];
  readonly middle: number;
  readonly after: readonly [number, number];
}

/** By de Casteljau, at t. */
const cutAt = (t: number, p1: number, p2: number): Cut => {
  const [a, b, c] = [p1 * t, p1 + (p2 - p1) * t, p2 + (1 - p2) * t];
  const [d, e] = [a + (b - a) * t, b + (c - b) * t];
  return { before: [a, d], middle: d + (e - d) * t, after: [e, c] };
};

/** A half of a Bézier as an ease of its own; null where it is none: handles are to stay within their span, and within limits. */
const half = (side: 'before' | 'after', x: Cut, y: Cut): Bezier | null => {
  const own = (cut: Cut) =>
    cut[side].map((v) => (side === 'before' ? v / cut.middle : (v - cut.middle) / (1 - cut.middle)));
  const [[x1 = 0, x2 = 0], [y1 = 0, y2 = 0]] = [own(x), own(y)];
  const [least, most] = EASE_LIMITS.y;
  const fits = [x1, x2].every((v) => v >= -1e-9 && v <= 1 + 1e-9) && [y1, y2].every((v) => v >= least && v <= most);
  const within = (v: number) => Math.min(1, Math.max(0, v));
  return fits ? { kind: 'bezier', x1: within(x1), y1, x2: within(x2), y2 } : null;
};

/** Cut where its x is `at`; null where a half is no ease of its kind. */
const dividedBezier = ({ x1, y1, x2, y2 }: Bezier, at: number): readonly [Ease, Ease] | null => {
  let [low, high] = [0, 1];
  for (let n = 0; n < 60; n++) {
    const t = (low + high) / 2;
    if (cutAt(t, x1, x2).middle < at) low = t;
    else high = t;
  }
  const [x, y] = [cutAt(low, x1, x2), cutAt(low, y1, y2)];
  const [before, after] = [half('before', x, y), half('after', x, y)];
  return before && after && [before, after];
};

/** The share of a span on either side of a jump that it takes. */
const JUMP = 1e-6;
/** How near a drawn curve comes to what it is drawn from, of the way from one keyframe to the next. */
const NEAR = 2e-4;
const SAMPLES = 1_000;
/** No two points are nearer than this. */
const APART = 1e-5;

/** Where a curve turns back, to a thousandth of what lies between two samples. */
const turnsOf = (curve: Curve): number[] => {
  const turns: number[] = [];
  for (let i = 1; i < SAMPLES; i++) {
    const [a, b, c] = [i - 1, i, i + 1].map((n) => curve(n / SAMPLES)) as [number, number, number];
    if ((b - a) * (c - b) >= 0) continue;
    const up = b > a ? 1 : -1;
    let [low, high] = [(i - 1) / SAMPLES, (i + 1) / SAMPLES];
    for (let n = 0; n < 20; n++) {
      const [p, q] = [low + (high - low) / 3, high - (high - low) / 3];
      if (up * curve(p) < up * curve(q)) low = p;
      else high = q;
    }
    turns.push((low + high) / 2);
  }
  return turns;
};

/** Where a drawn curve is farthest from another, between each two of its points; the worst first, those near enough left out. */
const farthest = (points: readonly DrawnPoint[], curve: Curve, near: number): number[] => {
  const now = drawn.curve({ kind: 'drawn', points });
  const ends = [...points.map((p) => p.x), 1];
  const worst = new Map<number, { x: number; off: number }>();
  for (let i = 1, span = 0; i < SAMPLES; i++) {
    const x = i / SAMPLES;
    while (x > ends[span]!) span++;
    const off = Math.abs(now(x) - curve(x));
    if (off > near && off > (worst.get(span)?.off ?? 0)) worst.set(span, { x, off });
  }
  return [...worst.values()].sort((a, b) => b.off - a.off).map(({ x }) => x);
};

/** Each time the worst places get points: often enough for as many as an ease may have. */
const ROUNDS = 12;

/** A drawn ease as near to a curve as is wanted, with points where it has corners, jumps and turns, and as many more as it takes. */
const drawnAlong = (curve: Curve, corners: readonly number[], near: number): Ease => {
  const [least, most] = EASE_LIMITS.y;
  const pointAt = (x: number, corner: boolean, y = curve(x)): DrawnPoint => ({
    x,
    y: Math.min(most, Math.max(least, y)),
    corner,
  });
  const inside = (x: number) => x > 2 * JUMP && x < 1 - 2 * JUMP;
  const sharp = corners.filter(inside).flatMap((x) => {
    const before = curve(x - JUMP / 10);
    const jumps = Math.abs(curve(x) - before) > near;
    return jumps ? [pointAt(x - JUMP, true, before), pointAt(x, true)] : [pointAt(x, true)];
  });
  // A jump at an end lies just within it; what is merely steep there goes on.
  const jumpsAt = (end: 0 | 1) => {
    const [at, on] = end === 0 ? [JUMP, 2 * JUMP] : [1 - JUMP, 1 - 2 * JUMP];
    return Math.abs(end - curve(at)) > near + 10 * Math.abs(curve(on) - curve(at)) ? [pointAt(at, true)] : [];
  };
  const isFree = (points: readonly DrawnPoint[], x: number) => points.every((p) => Math.abs(p.x - x) > APART);
  const soft = turnsOf(curve).filter((x) => inside(x) && isFree(sharp, x));
  let points = [...jumpsAt(0), ...sharp, ...soft.map((x) => pointAt(x, false)), ...jumpsAt(1)]
    .sort((a, b) => a.x - b.x)
    .slice(0, EASE_LIMITS.points);
  for (let round = 0; round < ROUNDS && points.length < EASE_LIMITS.points; round++) {
    const more = farthest(points, curve, near).filter((x) => isFree(points, x));
    if (more.length === 0) break;
    const fitting = more.slice(0, EASE_LIMITS.points - points.length);
    points = [...points, ...fitting.map((x) => pointAt(x, false))].sort((a, b) => a.x - b.x);
  }
  return { kind: 'drawn', points };
};

const HOLD: Ease = { kind: 'hold' };

/** Whether a curve stays at a height from one place to another. */
const staysAt = (curve: Curve, height: number, from: number, to: number): boolean =>
  Array.from({ length: 100 }, (_, i) => from + ((to - from) * i) / 100).every(
    (t) => Math.abs(curve(t) - height) < 1e-9,
  );

/**
 * The eases of a span that is cut at a share of its time, 0 < at < 1, by a keyframe with the value it has there. A straight line
 * and a Bézier stay what they are; others go on as drawn curves, within 2e-4 of the way. Where the value there is the one at an
 * end of the span, though it was another in between, no ease has that: what is nearest is taken.
 */
export const dividedEase = (ease: Ease, at: number): readonly [before: Ease, after: Ease] => {
  if (ease.kind === 'linear' || ease.kind === 'hold') return [ease, ease];
  const exact = ease.kind === 'bezier' ? dividedBezier(ease, at) : null;
  if (exact) return exact;
  const curve = curveOf(ease);
  const middle = curve(at);
  const kind = EASES[ease.kind] as { corners?: (of: Ease) => readonly number[] };
  const corners = kind.corners?.(ease) ?? [];
  const scaled = (by: number) => (Math.abs(by) < 1e-9 ? 1e-9 : by);
  const before = staysAt(curve, 0, 0, at)
    ? HOLD
    : drawnAlong(
        (t) => (t >= 1 ? 1 : curve(t * at) / scaled(middle)),
        corners.map((x) => x / at),
        NEAR / scaled(Math.abs(middle)),
      );
  const rest = 1 - at;
  const after = staysAt(curve, middle, at, 1)
    ? HOLD
    : drawnAlong(
        (t) => (t <= 0 ? 0 : (curve(at + t * rest) - middle) / scaled(1 - middle)),
        corners.map((x) => (x - at) / rest),
        NEAR / scaled(Math.abs(1 - middle)),
      );
  return [before, after];
};
