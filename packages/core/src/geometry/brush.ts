/** What the strokes of a brush cover, as outlines. */
import { getStroke } from 'perfect-freehand';
import { remembered } from '../document/remembered';
import type { BrushStroke, Point } from '../document/types';
import { hullOf } from './convex';
import { type Outline, OutlineWriter, polygon } from './outline';

/** A place on a stroke, and how hard it is pressed there. */
type Pressed = readonly [x: number, y: number, pressure: number];

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
      out.push([between(i, 0, t), between(i, 1, t), Math.min(1, Math.max(0, between(i, 2, t)))]);
    }
  }
  return out;
};

const lengthOf = (places: readonly Pressed[]): number =>
  places.reduce((sum, [x, y], i) => (i === 0 ? 0 : sum + Math.hypot(x - places[i - 1]![0], y - places[i - 1]![1])), 0);

/** A closed curve past corners, through the middles between them. */
const rounded = (corners: readonly (readonly number[])[]): Outline => {
  const at = (i: number): Point => [corners[i % corners.length]![0]!, corners[i % corners.length]![1]!];
  const between = (i: number): Point => [(at(i)[0] + at(i + 1)[0]) / 2, (at(i)[1] + at(i + 1)[1]) / 2];
  let [x, y] = between(0);
  const writer = new OutlineWriter(x, y);
  for (let i = 1; i <= corners.length; i++) {
    const [[cx, cy], [toX, toY]] = [at(i), between(i)];
    // A quadratic as a cubic: both of its control points lie two thirds of the way to the corner.
    const near = (from: number, corner: number): number => from + (2 / 3) * (corner - from);
    writer.cubic(near(x, cx), near(y, cy), near(toX, cx), near(toY, cy), toX, toY);
    [x, y] = [toX, toY];
  }
  return writer.close();
};

/** A round tip: wider where it is pressed. */
const roundTip = (stroke: BrushStroke, places: readonly Pressed[]): readonly Outline[] => {
  const taper = stroke.taper * lengthOf(places);
  const corners = getStroke(
    places.map((place) => [...place]),
    {
      size: stroke.size,
      thinning: stroke.thins,
      // Its places are smooth already.
      streamline: 0,
      smoothing: 0.5,
      simulatePressure: false,
      last: true,
      start: { taper, cap: true },
      end: { taper, cap: true },
    },
  );
  return corners.length < 3 ? [] : [rounded(corners)];
};

/** How a flat tip is held, and how thick it is beside its width. */
const [TURN, THICK] = [-Math.PI / 4, 0.14];

/** A flat tip: as wide across one way as it is thin along it. */
const flatTip = ({ size, thins, taper }: BrushStroke, places: readonly Pressed[]): readonly Outline[] => {
  const whole = lengthOf(places);
  const [c, s] = [Math.cos(TURN), Math.sin(TURN)];
  let gone = 0;
  const tips = places.map(([x, y, pressure], i): readonly Point[] => {
    if (i > 0) gone += Math.hypot(x - places[i - 1]![0], y - places[i - 1]![1]);
    const ends = taper > 0 && whole > 0 ? Math.min(1, gone / (taper * whole), (whole - gone) / (taper * whole)) : 1;
    const half = (size / 2) * (1 + thins * (2 * pressure - 1)) * Math.max(0.02, ends);
    const thick = half * THICK;
    return [
      [half, thick],
      [-half, thick],
      [-half, -thick],
      [half, -thick],
    ].map(([u, v]): Point => [x + u! * c - v! * s, y + u! * s + v! * c]);
  });
  const [only, ...rest] = tips as [readonly Point[], ...(readonly Point[])[]];
  return rest.length === 0 ? [polygon(only)] : rest.map((tip, i) => polygon(hullOf([...tips[i]!, ...tip])));
};

/** What a stroke covers, to be filled by the nonzero rule, in its own pixels. */
export const brushOutlines = remembered((stroke: BrushStroke): readonly Outline[] => {
  const places = along(stroke);
  return stroke.tip === 'flat' ? flatTip(stroke, places) : roundTip(stroke, places);
});
