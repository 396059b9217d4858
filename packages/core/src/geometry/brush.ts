/** What the strokes of a brush cover, as outlines. */
import { getStroke } from 'perfect-freehand';
import { remembered } from '../document/remembered';
import type { BrushStroke, Point } from '../document/types';
import { everySoFar, halfAt, type Way, wayOf } from './brushWay';
import { hullOf } from './convex';
import type { Matrix } from './matrix';
import { type Outline, OutlineWriter, polygon } from './outline';
import { isTextured, TEXTURED } from './texturedTips';

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
const roundTip = (stroke: BrushStroke, { places, whole }: Way): readonly Outline[] => {
  const taper = stroke.taper * whole;
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
const flatTip = (stroke: BrushStroke, { places, whole }: Way): readonly Outline[] => {
  const [c, s] = [Math.cos(TURN), Math.sin(TURN)];
  let gone = 0;
  const tips = places.map(([x, y, pressure], i): readonly Point[] => {
    if (i > 0) gone += Math.hypot(x - places[i - 1]![0], y - places[i - 1]![1]);
    const half = halfAt(stroke, pressure, gone, whole);
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

/** What a stroke covers, to be filled by the nonzero rule, in its own pixels; of one drawn with a picture what a round tip would. */
export const brushOutlines = remembered((stroke: BrushStroke): readonly Outline[] => {
  const way = wayOf(stroke);
  if (isTextured(stroke.tip)) return TEXTURED[stroke.tip](stroke, way);
  return stroke.tip === 'flat' ? flatTip(stroke, way) : roundTip(stroke, way);
});

/** As a share of its breadth: where a stroke is narrower, its picture would be of no pixel, and is not pressed. */
const LEAST_PRINT = 0.1;
/** The most times that one stroke presses a picture. */
const MOST_PRINTS = 1_000;

/**
 * Where a stroke presses the picture of its tip: from the picture's pixels, its middle at the origin, to the stroke's own, one after
 * another, `every` so many of its breadths. It is as broad as the stroke by its longer side, and turned along the way if that is wanted.
 */
export const printsOf = (
  stroke: BrushStroke,
  { width, height }: { readonly width: number; readonly height: number },
  { every, turns }: { readonly every: number; readonly turns: boolean },
): readonly Matrix[] => {
  const way = wayOf(stroke);
  const far = Math.max(0.5, stroke.size * every, way.whole / MOST_PRINTS);
  const spots = everySoFar(stroke, way, far).filter(({ half }) => 2 * half >= LEAST_PRINT * stroke.size);
  return spots.map(({ x, y, turn, half }) => {
    const scale = (2 * half) / Math.max(1, width, height);
    const [c, s] = turns ? [Math.cos(turn) * scale, Math.sin(turn) * scale] : [scale, 0];
    return [c, s, -s, c, x, y];
  });
};
