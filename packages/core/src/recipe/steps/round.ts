import { px } from '../../document/params';
import { along, cubicLengths, part } from '../../geometry/length';
import type { Outline } from '../../geometry/outline';
import { short } from '../types';
import { shapeStep } from '../shapeStep';

/** Turns of less than this are no corner, in radians: a flattened curve stays as it is. */
const LEAST_TURN = (8 * Math.PI) / 180;

const turnBetween = (a: { dx: number; dy: number }, b: { dx: number; dy: number }): number =>
  Math.abs(Math.atan2(a.dx * b.dy - a.dy * b.dx, a.dx * b.dx + a.dy * b.dy));

/**
 * Corners replaced by arcs of a radius, where the sides are long enough for it: an arc takes at most
 * half of each side. On straight sides the arcs are circular.
 */
const rounded = (outline: Outline, radius: number): Outline => {
  const lengths = cubicLengths(outline);
  const count = lengths.length;
  let gone = 0;
  const starts = lengths.map((length) => {
    const start = gone;
    gone += length;
    return start;
  });
  const { closed } = outline;
  /** How much of side `i` its end's corner takes, and of the next side its start. */
  const cuts = lengths.map((length, i) => {
    if (!closed && i === count - 1) return 0;
    const next = (i + 1) % count;
    const after = lengths[next] as number;
    if (length < 1e-6 || after < 1e-6) return 0;
    const inner = 1e-3 * Math.min(length, after);
    const turn = turnBetween(
      along(outline, (starts[i] as number) + length - inner),
      along(outline, (starts[next] as number) + inner),
    );
    if (turn < LEAST_TURN) return 0;
    return Math.min(radius * Math.tan(Math.min(turn, Math.PI - 1e-3) / 2), length / 2, after / 2);
  });
  if (cuts.every((cut) => cut === 0)) return outline;

  const out: number[] = [];
  const push = (points: ArrayLike<number>, from: number) => {
    for (let k = from; k < points.length; k++) out.push(points[k] as number);
  };
  for (let i = 0; i < count; i++) {
    const cutBefore = i === 0 ? (closed ? (cuts[count - 1] as number) : 0) : (cuts[i - 1] as number);
    const cutAfter = cuts[i] as number;
    const start = starts[i] as number;
    const [from, to] = [start + cutBefore, start + (lengths[i] as number) - cutAfter];
    const side = part(outline, from, to);
    if (out.length === 0) {
      const { x, y } = along(outline, from);
      out.push(x, y);
    }
    if (side) push(side.points, 2);
    if (cutAfter === 0) continue;
    const next = (i + 1) % count;
    const a = along(outline, to);
    const b = along(outline, (starts[next] as number) + cutAfter);
    const turn = turnBetween(a, b);
    const chord = Math.hypot(b.x - a.x, b.y - a.y);
    // The handles of an arc with this chord and turn: 4/3 tan(turn / 4) of its radius.
    const handle = turn < 1e-3 ? chord / 3 : ((4 / 3) * Math.tan(turn / 4) * chord) / (2 * Math.sin(turn / 2));
    out.push(a.x + a.dx * handle, a.y + a.dy * handle, b.x - b.dx * handle, b.y - b.dy * handle, b.x, b.y);
  }
  return { closed, points: Float64Array.from(out) };
};

export const round = shapeStep({
  kind: 'round',
  label: 'Round corners',
  params: { radius: px('Radius', 20, { min: 0, max: 5_000 }) },
  summary: (v) => `Radius ${short(v.radius)}`,
  each: (outlines, { radius }) => (radius <= 0 ? outlines : outlines.map((o) => rounded(o, radius))),
});
