/** Outlines told to whatever draws paths: contexts, paths, and writers of path data. */
import { isLine, type Outline } from './outline';

/** The drawing of paths (HTML Living Standard, 4.12.5.1.6, CanvasPath). */
export interface PathSink {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  closePath(): void;
}

/**
 * Traces an outline. Straight sides are lines; closing draws the last of them, and joins it. `curve` draws the curve whose
 * first point is at `k` of the points some other way.
 */
export const trace = (
  sink: PathSink,
  { closed, points: p }: Outline,
  curve?: (points: Float64Array, k: number) => void,
): void => {
  sink.moveTo(p[0]!, p[1]!);
  const count = (p.length - 2) / 6;
  for (let i = 0; i < count; i++) {
    const k = i * 6;
    if (isLine(p, i)) {
      if (!(closed && i === count - 1 && p[k + 6] === p[0] && p[k + 7] === p[1])) sink.lineTo(p[k + 6]!, p[k + 7]!);
    } else if (curve) curve(p, k);
    else sink.bezierCurveTo(p[k + 2]!, p[k + 3]!, p[k + 4]!, p[k + 5]!, p[k + 6]!, p[k + 7]!);
  }
  if (closed) sink.closePath();
};

const rounded = (n: number): string => String(Math.round(n * 1e3) / 1e3 + 0);
const list = (...numbers: readonly number[]): string => numbers.map(rounded).join(' ');

/** Path data (SVG 2, 9.3), to a thousandth. */
export const dataOf = (outlines: readonly Outline[]): string => {
  let data = '';
  const sink: PathSink = {
    moveTo: (x, y) => (data += `M${list(x, y)}`),
    lineTo: (x, y) => (data += `L${list(x, y)}`),
    bezierCurveTo: (...points) => (data += `C${list(...points)}`),
    closePath: () => (data += 'Z'),
  };
  for (const outline of outlines) trace(sink, outline);
  return data;
};
