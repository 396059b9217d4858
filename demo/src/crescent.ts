import type { PathValue, Point, Vertex } from '@kite/core/document/types';

/** An arc of a circle about `c` from one angle to another (radians, y down) in parts of at most a quarter turn. */
const arc = (c: Point, r: number, from: number, to: number): Vertex[] => {
  const parts = Math.max(1, Math.ceil(Math.abs(to - from) / (Math.PI / 2)));
  const part = (to - from) / parts;
  const reach = (4 / 3) * Math.tan(part / 4) * r;
  return Array.from({ length: parts + 1 }, (_, i) => {
    const a = from + i * part;
    const [hx, hy] = [-Math.sin(a) * reach, Math.cos(a) * reach];
    return [c[0] + r * Math.cos(a), c[1] + r * Math.sin(a), -hx, -hy, hx, hy] as const;
  });
};

/** What a circle of radius `r` about `at` leaves of a circle of radius `R` about the origin. */
export const crescent = (R: number, at: Point, r: number): PathValue => {
  const d = Math.hypot(at[0], at[1]);
  const toward = Math.atan2(at[1], at[0]);
  // Where the circles meet, as angles seen from each centre.
  const outer = Math.acos((R * R + d * d - r * r) / (2 * R * d));
  const inner = Math.acos((r * r + d * d - R * R) / (2 * r * d));
  const far = arc([0, 0], R, toward + outer, toward + 2 * Math.PI - outer);
  const near = arc(at, r, toward + Math.PI + inner, toward + Math.PI - inner);
  const [last, first] = [far.at(-1) as Vertex, near[0] as Vertex];
  const [end, start] = [near.at(-1) as Vertex, far[0] as Vertex];
  return {
    closed: true,
    vertices: [
      [start[0], start[1], end[2], end[3], start[4], start[5]],
      ...far.slice(1, -1),
      [last[0], last[1], last[2], last[3], first[4], first[5]],
      ...near.slice(1, -1),
    ],
  };
};
