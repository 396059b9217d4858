/** Basic shapes and path data as paths (SVG 2, chapters 9 and 10). */
import svgpath from 'svgpath';
import type { PathValue, Vertex } from '../../document/types';
import type { Matrix } from '../../geometry/matrix';
import type { SvgElement } from './parse';
import { diagonalOf, lengthOf, numbersOf } from './style';

const ellipse = (cx: number, cy: number, rx: number, ry: number): string =>
  rx > 0 && ry > 0
    ? `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx} ${cy + ry}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx} ${cy - ry}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}Z`
    : '';

const rect = (x: number, y: number, w: number, h: number, rx: number, ry: number): string => {
  if (w <= 0 || h <= 0) return '';
  if (rx <= 0 || ry <= 0) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
  const corner = (ex: number, ey: number) => `A${rx} ${ry} 0 0 1 ${ex} ${ey}`;
  return `M${x + rx} ${y}H${x + w - rx}${corner(x + w, y + ry)}V${y + h - ry}${corner(x + w - rx, y + h)}H${x + rx}${corner(x, y + h - ry)}V${y + ry}${corner(x + rx, y)}Z`;
};

const points = (text: string | undefined): string => {
  const v = numbersOf(text);
  const pairs = Array.from({ length: Math.floor(v.length / 2) }, (_, i) => `${v[i * 2]} ${v[i * 2 + 1]}`);
  return pairs.length > 1 ? `M${pairs.join('L')}` : '';
};

/** The path data of a shape element; null for an element that is no shape. */
export const dataOf = (
  { name, attributes: a }: SvgElement,
  size: readonly [width: number, height: number],
): string | null => {
  const [w, h] = size;
  const x = (key: string, missing = 0) => lengthOf(a[key], w, missing);
  const y = (key: string, missing = 0) => lengthOf(a[key], h, missing);
  switch (name) {
    case 'path':
      return a.d ?? '';
    case 'rect': {
      const [width, height] = [x('width'), y('height')];
      const [rx, ry] = [x('rx', -1), y('ry', -1)];
      return rect(
        x('x'),
        y('y'),
        width,
        height,
        Math.min(rx >= 0 ? rx : Math.max(0, ry), width / 2),
        Math.min(ry >= 0 ? ry : Math.max(0, rx), height / 2),
      );
    }
    case 'circle': {
      const r = lengthOf(a.r, diagonalOf(size), 0);
      return ellipse(x('cx'), y('cy'), r, r);
    }
    case 'ellipse': {
      const [rx, ry] = [x('rx', -1), y('ry', -1)];
      return ellipse(x('cx'), y('cy'), rx >= 0 ? rx : ry, ry >= 0 ? ry : rx);
    }
    case 'line':
      return `M${x('x1')} ${y('y1')}L${x('x2')} ${y('y2')}`;
    case 'polyline':
      return points(a.points);
    case 'polygon': {
      const d = points(a.points);
      return d && `${d}Z`;
    }
    default:
      return null;
  }
};

const round = (n: number) => Math.round(n * 1e4) / 1e4 + 0;

/** Path data, through a matrix, as a path to each of its subpaths. What comes after an error in it is left out. */
export const pathsOf = (data: string, matrix: Matrix): PathValue[] => {
  const out: PathValue[] = [];
  let vertices: number[][] = [];
  let [x, y] = [0, 0];
  let [sx, sy] = [0, 0];
  const push = (px: number, py: number) => {
    vertices.push([px, py, 0, 0, 0, 0]);
    [x, y] = [px, py];
  };
  const end = (closed: boolean) => {
    const [first, last] = [vertices[0], vertices.at(-1)];
    if (first && last && vertices.length > 1) {
      if (closed && Math.hypot(first[0]! - last[0]!, first[1]! - last[1]!) < 1e-3) {
        first[2] = last[2]!;
        first[3] = last[3]!;
        vertices.pop();
      }
      out.push({ closed, vertices: vertices.map((v) => v.map(round) as unknown as Vertex) });
    } else if (first && closed) {
      // A dot: a stroke with round caps shows it.
      out.push({ closed: false, vertices: [first, first].map((v) => v.map(round) as unknown as Vertex) });
    }
    vertices = [];
  };
  const curve = (x1: number, y1: number, x2: number, y2: number, ex: number, ey: number) => {
    const last = vertices.at(-1) as number[];
    last[4] = x1 - x;
    last[5] = y1 - y;
    push(ex, ey);
    const now = vertices.at(-1) as number[];
    now[2] = x2 - ex;
    now[3] = y2 - ey;
  };
  // Arcs become curves before they are moved: one that is mirrored turns the other way.
  svgpath(data)
    .abs()
    .unshort()
    .unarc()
    .matrix([...matrix])
    .iterate((segment) => {
      const [command, ...v] = segment as [string, ...number[]];
      const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = v;
      if (command !== 'M' && vertices.length === 0) push(sx, sy);
      switch (command) {
        case 'M':
          end(false);
          [sx, sy] = [a, b];
          push(a, b);
          break;
        case 'L':
          push(a, b);
          break;
        case 'H':
          push(a, y);
          break;
        case 'V':
          push(x, a);
          break;
        case 'C':
          curve(a, b, c, d, e, f);
          break;
        case 'Q':
          curve(x + ((a - x) * 2) / 3, y + ((b - y) * 2) / 3, c + ((a - c) * 2) / 3, d + ((b - d) * 2) / 3, c, d);
          break;
        case 'Z':
          end(true);
          [x, y] = [sx, sy];
          break;
      }
    });
  end(false);
  return out;
};
