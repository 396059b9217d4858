import type { PathValue, Vertex } from '../document/types';

const mid = (a: number, b: number) => (a + b) / 2;

/** The cubic from `p` to `q` cut in half: `p` with its new out handle, the vertex between, `q` with its new in handle. */
const halve = (p: Vertex, q: Vertex): [Vertex, Vertex, Vertex] => {
  const [x0, y0, x1, y1] = [p[0], p[1], p[0] + p[4], p[1] + p[5]];
  const [x2, y2, x3, y3] = [q[0] + q[2], q[1] + q[3], q[0], q[1]];
  const [ax, ay, bx, by, cx, cy] = [mid(x0, x1), mid(y0, y1), mid(x1, x2), mid(y1, y2), mid(x2, x3), mid(y2, y3)];
  const [dx, dy, ex, ey] = [mid(ax, bx), mid(ay, by), mid(bx, cx), mid(by, cy)];
  const [mx, my] = [mid(dx, ex), mid(dy, ey)];
  return [
    [x0, y0, p[2], p[3], ax - x0, ay - y0],
    [mx, my, dx - mx, dy - my, ex - mx, ey - my],
    [x3, y3, cx - x3, cy - y3, q[4], q[5]],
  ];
};

/** The same outline with `count` vertices: the longest chords are cut in half until there are enough. */
export const withVertices = (path: PathValue, count: number): PathValue => {
  const vertices = [...path.vertices];
  while (vertices.length > 0 && vertices.length < count) {
    const spans = path.closed ? vertices.length : vertices.length - 1;
    if (spans < 1) {
      vertices.push(vertices[0] as Vertex);
      continue;
    }
    let longest = 0;
    let most = -1;
    for (let i = 0; i < spans; i++) {
      const p = vertices[i] as Vertex;
      const q = vertices[(i + 1) % vertices.length] as Vertex;
      const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
      if (length > most) [most, longest] = [length, i];
    }
    const next = (longest + 1) % vertices.length;
    const [p, m, q] = halve(vertices[longest] as Vertex, vertices[next] as Vertex);
    vertices[longest] = p;
    vertices[next] = q;
    vertices.splice(longest + 1, 0, m);
  }
  return { ...path, vertices };
};

/** An outline between two. Vertex counts are made equal first; a path stays closed if it starts so. */
export const mixPaths = (from: PathValue, to: PathValue, t: number): PathValue => {
  const count = Math.max(from.vertices.length, to.vertices.length);
  const a = withVertices(from, count).vertices;
  const b = withVertices(to, count).vertices;
  if (a.length === 0 || b.length === 0) return t < 1 ? from : to;
  return {
    closed: t < 1 ? from.closed : to.closed,
    vertices: a.map((v, i) => {
      const w = b[i] as Vertex;
      return v.map((x, k) => x + ((w[k] as number) - x) * t) as unknown as Vertex;
    }),
  };
};
