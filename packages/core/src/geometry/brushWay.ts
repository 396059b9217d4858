/** The way of a brush stroke: through its points smoothly, with how broad it is and where it heads at each place. */
import { clamped } from '../document/fitting';
import type { BrushStroke } from '../document/types';

/** A place on a stroke, and how hard it is pressed there. */
export type Pressed = readonly [x: number, y: number, pressure: number];

/** From one place to the next on the curve of a stroke, in widths of the stroke; and the most places between two points. */
const [FINE, MOST_BETWEEN] = [0.15, 64];

/** Through its points, smoothly (Catmull and Rom 1974), in steps that are fine beside its width. */
const along = ({ points, size }: BrushStroke): readonly Pressed[] => {
  const count = points.length / 3;
  const at = (i: number, k: number): number => points[3 * Math.min(count - 1, Math.max(0, i)) + k]!;
  const between = (i: number, k: number, t: number): number => {
    const [a, b, c, d] = [at(i - 1, k), at(i, k), at(i + 1, k), at(i + 2, k)];
    return b + (t / 2) * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
  };
  const out: Pressed[] = [[at(0, 0), at(0, 1), at(0, 2)]];
  for (let i = 0; i + 1 < count; i++) {
    const length = Math.hypot(at(i + 1, 0) - at(i, 0), at(i + 1, 1) - at(i, 1));
    const steps = Math.min(MOST_BETWEEN, Math.max(1, Math.ceil(length / Math.max(1, size * FINE))));
    for (let n = 1; n <= steps; n++) {
      const t = n / steps;
      out.push([between(i, 0, t), between(i, 1, t), clamped(between(i, 2, t), 0, 1, 0.5)]);
    }
  }
  return out;
};

const lengthOf = (places: readonly Pressed[]): number =>
  places.reduce((sum, [x, y], i) => (i === 0 ? 0 : sum + Math.hypot(x - places[i - 1]![0], y - places[i - 1]![1])), 0);

/** All of a stroke's way, and how long it is. */
export interface Way {
  readonly places: readonly Pressed[];
  readonly whole: number;
}
export const wayOf = (stroke: BrushStroke): Way => {
  const places = along(stroke);
  return { places, whole: lengthOf(places) };
};

/** How narrow an end that tapers becomes, as a share of the stroke. */
const NARROWEST = 0.02;

/** Half the breadth of a stroke where so much of its length is behind, 0..`whole`. */
export const halfAt = ({ size, thins, taper }: BrushStroke, pressure: number, gone: number, whole: number): number => {
  const ends = taper > 0 && whole > 0 ? Math.min(1, gone / (taper * whole), (whole - gone) / (taper * whole)) : 1;
  return (size / 2) * (1 + thins * (2 * pressure - 1)) * Math.max(NARROWEST, ends);
};

/** A place on the way of a stroke. */
export interface OnWay {
  readonly x: number;
  readonly y: number;
  /** Where it heads, in radians, clockwise from the right. */
  readonly turn: number;
  /** Half the breadth of the stroke. */
  readonly half: number;
}

/** Places along a stroke, one every so many pixels of its way, the first at its beginning. */
export const everySoFar = (stroke: BrushStroke, { places, whole }: Way, far: number): readonly OnWay[] => {
  const out: OnWay[] = [];
  let [gone, next] = [0, 0];
  places.forEach(([x, y, pressure], i) => {
    const [toX, toY, toPressure] = places[i + 1] ?? [x, y, pressure];
    const length = Math.hypot(toX - x, toY - y);
    const turn = length > 0 ? Math.atan2(toY - y, toX - x) : (out.at(-1)?.turn ?? 0);
    for (; next <= gone + length && (length > 0 || out.length === 0); next += far) {
      const t = length > 0 ? (next - gone) / length : 0;
      const half = halfAt(stroke, pressure + (toPressure - pressure) * t, next, whole);
      out.push({ x: x + (toX - x) * t, y: y + (toY - y) * t, turn, half });
    }
    gone += length;
  });
  return out;
};
