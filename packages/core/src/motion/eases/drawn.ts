import { clamped } from '../../document/fitting';
import { isNumber, isObject } from '../../document/is';
import { EASE_LIMITS } from '../../document/limits';
import type { DrawnEase, DrawnPoint, EaseKind, Setting } from './types';

const [low, high] = EASE_LIMITS.y;
const isPoint = (p: unknown): p is DrawnPoint =>
  isObject(p) &&
  Object.keys(p).length === 3 &&
  isNumber(p.x) &&
  p.x < 1 &&
  isNumber(p.y) &&
  p.y >= low &&
  p.y <= high &&
  typeof p.corner === 'boolean';

const points: Setting<readonly DrawnPoint[]> = {
  wanted: `at most ${EASE_LIMITS.points} points in rising order between 0 and 1, each with x, y and corner`,
  is: (v) =>
    Array.isArray(v) &&
    v.length <= EASE_LIMITS.points &&
    v.every((p, i) => isPoint(p) && p.x > (i === 0 ? 0 : (v[i - 1] as DrawnPoint).x)),
  fitted: (given) => {
    const out: DrawnPoint[] = [];
    for (const p of given.slice(0, EASE_LIMITS.points)) {
      if (p.x > (out.at(-1)?.x ?? 0) && p.x < 1) out.push({ ...p, y: clamped(p.y, low, high, 0) });
    }
    return out.length === given.length && out.every((p, i) => p.y === given[i]?.y) ? given : out;
  },
};

/** Slopes at a point from the left and from the right. */
type Slopes = readonly [left: number, right: number];

/**
 * Slopes of a monotone cubic through the points (Fritsch and Butland, 1984): between two points the curve
 * never leaves their heights, so what is drawn is what there is. Corners have a slope to each side.
 */
const slopesOf = (points: readonly DrawnPoint[]): Slopes[] =>
  points.map((point, i) => {
    const before = points[i - 1];
    const after = points[i + 1];
    const left = before ? (point.y - before.y) / (point.x - before.x) : null;
    const right = after ? (after.y - point.y) / (after.x - point.x) : null;
    if (left === null || right === null || !before || !after) return [left ?? right ?? 0, right ?? left ?? 0];
    if (point.corner) return [left, right];
    if (left * right <= 0) return [0, 0];
    const [a, b] = [point.x - before.x, after.x - point.x];
    const share = (a + 2 * b) / (3 * (a + b));
    const slope = (left * right) / (share * right + (1 - share) * left);
    return [slope, slope];
  });

/** The index of the first point beyond a place. */
const placeOf = (points: readonly DrawnPoint[], x: number): number => {
  let [low, high] = [0, points.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((points[middle] as DrawnPoint).x > x) high = middle;
    else low = middle + 1;
  }
  return low;
};

/** A curve through as many points as wanted, from (0, 0) to (1, 1): cubic Hermite between them. */
export const drawn: EaseKind<DrawnEase> = {
  kind: 'drawn',
  label: 'Drawn',
  settings: { points },
  curve: ({ points: inner }) => {
    const points = [{ x: 0, y: 0, corner: true }, ...inner, { x: 1, y: 1, corner: true }];
    const slopes = slopesOf(points);
    return (t) => {
      if (t <= 0 || t >= 1) return t <= 0 ? 0 : 1;
      const next = placeOf(points, t);
      const [p, q] = [points[next - 1] as DrawnPoint, points[next] as DrawnPoint];
      const width = q.x - p.x;
      const s = (t - p.x) / width;
      const [m0, m1] = [(slopes[next - 1] as Slopes)[1] * width, (slopes[next] as Slopes)[0] * width];
      return (
        (2 * s ** 3 - 3 * s * s + 1) * p.y +
        (s ** 3 - 2 * s * s + s) * m0 +
        (3 * s * s - 2 * s ** 3) * q.y +
        (s ** 3 - s * s) * m1
      );
    };
  },
  corners: ({ points: given }) => given.filter((p) => p.corner).map((p) => p.x),
  reversed: ({ points: given }) => ({
    kind: 'drawn',
    points: given.map((p) => ({ ...p, x: 1 - p.x, y: 1 - p.y })).reverse(),
  }),
};
