/** Polygons without dents, and what lines leave of others. */
import type { Point } from '../document/types';

/** The part of a polygon on the side of a line where `a x + b y + c` is positive (Sutherland and Hodgman, 1974). */
export const cutByLine = (corners: readonly Point[], a: number, b: number, c: number): Point[] => {
  const out: Point[] = [];
  corners.forEach((p, i) => {
    const q = corners[(i + 1) % corners.length] as Point;
    const [here, there] = [a * p[0] + b * p[1] + c, a * q[0] + b * q[1] + c];
    if (here >= 0) out.push(p);
    if (here >= 0 !== there >= 0) {
      const t = here / (here - there);
      out.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]);
    }
  });
  return out;
};

/**
 * The sides of a convex polygon as lines, three numbers each: `a x + b y + c` is how far inside of it a point lies. Beside one of
 * no length all lies inside.
 */
export const sidesOf = (corners: readonly Point[]): readonly number[] => {
  const count = corners.length;
  let area = 0;
  for (let i = 0; i < count; i++) {
    const p = corners[i]!;
    const q = corners[i + 1 < count ? i + 1 : 0]!;
    area += p[0] * q[1] - q[0] * p[1];
  }
  const way = Math.sign(area);
  const sides: number[] = [];
  for (let i = 0; i < count; i++) {
    const p = corners[i]!;
    const q = corners[i + 1 < count ? i + 1 : 0]!;
    const dx = q[0] - p[0];
    const dy = q[1] - p[1];
    const length = Math.sqrt(dx * dx + dy * dy) * way;
    if (Math.abs(length) < 1e-9) {
      sides.push(0, 0, 1);
      continue;
    }
    const a = -dy / length;
    const b = dx / length;
    sides.push(a, b, -(a * p[0] + b * p[1]));
  }
  return sides;
};

/** The part of a polygon within the lines of another's sides, each moved outwards by so much. */
export const within = (
  corners: readonly Point[],
  sides: readonly number[],
  out?: (side: number) => number,
): readonly Point[] => {
  let rest = corners;
  for (let i = 0; i < sides.length; i += 3) {
    rest = cutByLine(rest, sides[i]!, sides[i + 1]!, sides[i + 2]! + (out?.(i / 3) ?? 0));
  }
  return rest;
};

/** The smallest polygon without dents that holds points (Andrew 1979). */
export const hullOf = (points: readonly Point[]): readonly Point[] => {
  const sorted = points.toSorted((p, q) => p[0] - q[0] || p[1] - q[1]);
  const half = (list: readonly Point[]): Point[] => {
    const out: Point[] = [];
    for (const p of list) {
      while (out.length > 1) {
        const [a, b] = [out.at(-2) as Point, out.at(-1) as Point];
        if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        out.pop();
      }
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return sorted.length < 2 ? sorted : [...half(sorted), ...half(sorted.toReversed())];
};

/** A convex polygon with its sides moved outwards by so much; what has sides of no length stays as it is. */
export const widened = (corners: readonly Point[], by: number): readonly Point[] => {
  const sides = sidesOf(corners);
  const count = corners.length;
  return corners.map(([x, y], i): Point => {
    const [before, after] = [3 * ((i + count - 1) % count), 3 * i];
    const [a, b, c, d] = [sides[before]!, sides[before + 1]!, sides[after]!, sides[after + 1]!];
    const across = a * d - b * c;
    // Sides that go on straight have one direction in which to move.
    if (Math.abs(across) < 1e-9) return [x - a * by, y - b * by];
    return [x - (by * (d - b)) / across, y - (by * (a - c)) / across];
  });
};
