/** Changes to a path's vertices. All pure; a change of their number is the same for every keyframe. */
import type { PathValue, Point, Vertex } from '../document/types';
import { apply, type Matrix } from '../geometry/matrix';
import { isLine } from '../geometry/outline';

/** A vertex through a matrix, its handles along. */
export const vertexThrough = (m: Matrix, [x, y, ix, iy, ox, oy]: Vertex): Vertex => {
  const linear: Matrix = [m[0], m[1], m[2], m[3], 0, 0];
  return [...apply(m, [x, y]), ...apply(linear, [ix, iy]), ...apply(linear, [ox, oy])];
};

/** A vertex of the same path run through the other way. */
export const vertexReversed = ([x, y, ix, iy, ox, oy]: Vertex): Vertex => [x, y, ox, oy, ix, iy];

const at = (path: PathValue, i: number): Vertex =>
  path.vertices[((i % path.vertices.length) + path.vertices.length) % path.vertices.length] as Vertex;

const withVertex = (path: PathValue, i: number, vertex: Vertex): PathValue => ({
  ...path,
  vertices: path.vertices.with(i, vertex),
});

const mix = (a: number, b: number, t: number) => a + (b - a) * t;
const mixPoint = (p: Point, q: Point, t: number): Point => [mix(p[0], q[0], t), mix(p[1], q[1], t)];

/** The spans of a path: one fewer than its vertices, or as many where it is closed. */
export const spanCount = ({ closed, vertices }: PathValue): number =>
  vertices.length < 2 ? 0 : closed ? vertices.length : vertices.length - 1;

/** Cuts span `span` at t, 0 < t < 1: the outline stays as it is (de Casteljau). */
export const withInserted = (path: PathValue, span: number, t: number): PathValue => {
  const p = at(path, span);
  const q = at(path, span + 1);
  const [p0, p1]: [Point, Point] = [
    [p[0], p[1]],
    [p[0] + p[4], p[1] + p[5]],
  ];
  const [p2, p3]: [Point, Point] = [
    [q[0] + q[2], q[1] + q[3]],
    [q[0], q[1]],
  ];
  const [a, b, c] = [mixPoint(p0, p1, t), mixPoint(p1, p2, t), mixPoint(p2, p3, t)];
  const [d, e] = [mixPoint(a, b, t), mixPoint(b, c, t)];
  const m = mixPoint(d, e, t);
  // A straight span stays one, without handles.
  const straight = p[4] === 0 && p[5] === 0 && q[2] === 0 && q[3] === 0;
  const line = mixPoint(p0, p3, t);
  const middle: Vertex = straight
    ? [line[0], line[1], 0, 0, 0, 0]
    : [m[0], m[1], d[0] - m[0], d[1] - m[1], e[0] - m[0], e[1] - m[1]];
  const vertices = [...path.vertices];
  if (!straight) {
    vertices[span] = [p[0], p[1], p[2], p[3], a[0] - p[0], a[1] - p[1]];
    vertices[(span + 1) % vertices.length] = [q[0], q[1], c[0] - q[0], c[1] - q[1], q[4], q[5]];
  }
  vertices.splice(span + 1, 0, middle);
  return { ...path, vertices };
};

export const withoutVertices = (path: PathValue, gone: ReadonlySet<number>): PathValue => ({
  ...path,
  vertices: path.vertices.filter((_, i) => !gone.has(i)),
});

export const movedVertices = (path: PathValue, chosen: ReadonlySet<number>, [dx, dy]: Point): PathValue => ({
  ...path,
  vertices: path.vertices.map((v, i): Vertex => (chosen.has(i) ? [v[0] + dx, v[1] + dy, v[2], v[3], v[4], v[5]] : v)),
});

export type Handle = 'in' | 'out';

/** Puts one handle at an offset from its vertex. The other turns along, keeping its length, unless it is left alone. */
export const withHandle = (
  path: PathValue,
  i: number,
  handle: Handle,
  [x, y]: Point,
  other: 'turns' | 'mirrors' | 'stays',
): PathValue => {
  const v = at(path, i);
  const [ox, oy] = handle === 'in' ? [v[4], v[5]] : [v[2], v[3]];
  const length = Math.hypot(x, y);
  const kept = other === 'mirrors' ? length : Math.hypot(ox, oy);
  const turned: Point =
    other === 'stays' || length < 1e-9 || (other === 'turns' && kept < 1e-9)
      ? [ox, oy]
      : [(-x / length) * kept, (-y / length) * kept];
  return withVertex(path, i, handle === 'in' ? [v[0], v[1], x, y, ...turned] : [v[0], v[1], ...turned, x, y]);
};

/** Whether a vertex's handles lie on one line through it. */
export const isSmooth = (v: Vertex): boolean => {
  const [a, b] = [Math.hypot(v[2], v[3]), Math.hypot(v[4], v[5])];
  if (a < 1e-9 || b < 1e-9) return false;
  return (v[2] * v[4] + v[3] * v[5]) / (a * b) < -0.9999;
};

export const isCorner = (v: Vertex): boolean => v[2] === 0 && v[3] === 0 && v[4] === 0 && v[5] === 0;

/** Corners lose their handles; smooth vertices get some along the line between their neighbours, a third of the way to each. */
export const withVertexKind = (path: PathValue, chosen: ReadonlySet<number>, kind: 'corner' | 'smooth'): PathValue => ({
  ...path,
  vertices: path.vertices.map((v, i): Vertex => {
    if (!chosen.has(i)) return v;
    if (kind === 'corner') return [v[0], v[1], 0, 0, 0, 0];
    const last = path.vertices.length - 1;
    const before = at(path, path.closed || i > 0 ? i - 1 : i);
    const after = at(path, path.closed || i < last ? i + 1 : i);
    const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
    const length = Math.hypot(dx, dy) || 1;
    const back = Math.hypot(v[0] - before[0], v[1] - before[1]) / 3 / length;
    const on = Math.hypot(after[0] - v[0], after[1] - v[1]) / 3 / length;
    return [v[0], v[1], -dx * back, -dy * back, dx * on, dy * on];
  }),
});

/** A closed path that starts at another of its vertices. */
export const startingAt = (path: PathValue, first: number): PathValue =>
  path.closed ? { ...path, vertices: [...path.vertices.slice(first), ...path.vertices.slice(0, first)] } : path;

/** The other way round; a closed path keeps its first vertex. */
export const reversedPath = ({ closed, vertices }: PathValue): PathValue => {
  const back = vertices.toReversed().map(vertexReversed);
  return { closed, vertices: closed && back.length > 0 ? [back.at(-1) as Vertex, ...back.slice(0, -1)] : back };
};

/** The place on a path that is nearest to a point: its span, t in it, and how far away it is. */
export const nearestOnPath = (
  path: PathValue,
  [x, y]: Point,
): { readonly span: number; readonly t: number; readonly distance: number } | null => {
  let best: { span: number; t: number; distance: number } | null = null;
  const point = (span: number, t: number): Point => {
    const p = at(path, span);
    const q = at(path, span + 1);
    const u = 1 - t;
    const on = (a: 0 | 1) => {
      const [p0, p3] = [p[a], q[a]];
      const straight = p[4] === 0 && p[5] === 0 && q[2] === 0 && q[3] === 0;
      if (straight) return mix(p0, p3, t);
      return u ** 3 * p0 + 3 * u * u * t * (p0 + p[a + 4]!) + 3 * u * t * t * (p3 + q[a + 2]!) + t ** 3 * p3;
    };
    return [on(0), on(1)];
  };
  const distance = (span: number, t: number) => {
    const [px, py] = point(span, t);
    return Math.hypot(px - x, py - y);
  };
  for (let span = 0; span < spanCount(path); span++) {
    for (let n = 0; n <= 24; n++) {
      const d = distance(span, n / 24);
      if (!best || d < best.distance) best = { span, t: n / 24, distance: d };
    }
  }
  if (!best) return null;
  // Closing in on it from its neighbours, a third closer each time.
  let [low, high] = [Math.max(0, best.t - 1 / 24), Math.min(1, best.t + 1 / 24)];
  for (let n = 0; n < 30; n++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (distance(best.span, a) < distance(best.span, b)) high = b;
    else low = a;
  }
  const t = (low + high) / 2;
  return { span: best.span, t, distance: distance(best.span, t) };
};

/** An outline's cubics as a path. */
export const pathOfOutline = ({ points: p, closed }: { points: Float64Array; closed: boolean }): PathValue => {
  const count = (p.length - 2) / 6;
  const vertices: Vertex[] = [];
  const round = (n: number) => Math.round(n * 1e4) / 1e4 + 0;
  for (let i = 0; i <= count; i++) {
    const k = i * 6;
    const [x, y] = [p[k]!, p[k + 1]!];
    const isLast = i === count;
    const [ix, iy] = i > 0 && !isLine(p, i - 1) ? [p[k - 2]! - x, p[k - 1]! - y] : [0, 0];
    const [ox, oy] = !isLast && !isLine(p, i) ? [p[k + 2]! - x, p[k + 3]! - y] : [0, 0];
    vertices.push([round(x), round(y), round(ix), round(iy), round(ox), round(oy)]);
  }
  const [first, last] = [vertices[0]!, vertices.at(-1)!];
  if (closed && vertices.length > 1 && Math.hypot(first[0] - last[0], first[1] - last[1]) < 1e-3) {
    vertices.pop();
    vertices[0] = [first[0], first[1], last[2], last[3], first[4], first[5]];
  }
  return { closed, vertices };
};
