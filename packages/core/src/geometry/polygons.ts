/**
 * Areas combined and offset: clipper2 on outlines flattened to lines, on a grid of 1/256 px. What it
 * gives no longer has the curves it came from, so it works after morphing.
 */
import { Clipper, ClipType, EndType, FillRule, JoinType, type Path64, type Paths64 } from 'clipper2-ts';
import { pairsThatMeet } from './crossings';
import { flattened } from './flatten';
import { type Outline, polygon } from './outline';

const GRID = 256;

/** How far a round join may lie from its arc, in pixels. */
const ARC_TOLERANCE = 0.02;
const MOST_PAIRS = 400_000;
const PER_POINT = 4;
const PER_CROSSING = 10;

const toGrid = (outline: Outline): Path64 =>
  flattened(outline).map(([x, y]) => ({ x: Math.round(x * GRID), y: Math.round(y * GRID) }));

const fromGrid = (paths: Paths64): Outline[] =>
  paths.filter((path) => path.length > 2).map((path) => polygon(path.map(({ x, y }) => [x / GRID, y / GRID])));

/** An area: its boundary does not cross itself, holes run against their rims. */
export type Area = Paths64;

/** Lines of a round join that turns once round (clipper2, ClipperOffset). */
const linesRound = (by: number): number => Math.PI / Math.acos(1 - Math.min(1, ARC_TOLERANCE / Math.abs(by)));

/**
 * What it takes to combine the areas of outlines, or to offset them by so many pixels: about as many segments could be
 * drawn meanwhile. Measured: a pair of lines that meet costs two microseconds, one of arcs a tenth for each of its lines,
 * and a point up to twenty, where others stand beside it. To be offset, lines that cross are made corners of areas first,
 * which are grown each: forty for a crossing.
 */
export const intricacyOf = (outlines: readonly Outline[], by = 0, join: Join = 'miter'): number => {
  const runs = outlines.map(toGrid);
  const each = by === 0 ? 0.5 : (join === 'round' ? linesRound(by) : 8) / 40;
  const points = runs.reduce((sum, run) => sum + run.length, 0);
  const near = each * pairsThatMeet(runs, MOST_PAIRS, Math.abs(by) * GRID);
  // Each line meets the next one, which is no crossing.
  const crossings = by === 0 ? 0 : Math.max(0, pairsThatMeet(runs, MOST_PAIRS) - points);
  return PER_POINT * points + Math.round(near + PER_CROSSING * crossings);
};

/** The area that outlines fill by a rule; open ones are closed by a straight line, as a fill does. */
export const areaOf = (outlines: readonly Outline[], rule: 'nonzero' | 'evenodd' = 'nonzero'): Area =>
  Clipper.union(outlines.map(toGrid), rule === 'nonzero' ? FillRule.NonZero : FillRule.EvenOdd);

export const outlinesOf = (area: Area): Outline[] => fromGrid(area);

export type Operation = 'union' | 'intersect' | 'subtract' | 'exclude';

/** The area that areas give together: all of them, what they share, the first without the others, what an odd number covers. */
export const combined = (operation: Operation, areas: readonly Area[]): Area => {
  const [first, ...rest] = areas;
  if (!first || rest.length === 0) return first ?? [];
  switch (operation) {
    case 'union':
      return Clipper.union(areas.flat(), FillRule.NonZero);
    case 'subtract':
      return Clipper.booleanOp(ClipType.Difference, first, rest.flat(), FillRule.NonZero);
    case 'exclude':
      return Clipper.union(areas.flat(), FillRule.EvenOdd);
    case 'intersect':
      return rest.reduce((sum, area) => Clipper.booleanOp(ClipType.Intersection, sum, area, FillRule.NonZero), first);
  }
};

export type Join = 'miter' | 'round' | 'bevel';
const JOINS: { readonly [K in Join]: JoinType } = {
  miter: JoinType.Miter,
  round: JoinType.Round,
  bevel: JoinType.Bevel,
};

/** The area grown by `by` pixels, or shrunk by a negative one. */
export const grownArea = (area: Area, by: number, join: Join, miterLimit: number): Area =>
  Clipper.inflatePaths(area, by * GRID, JOINS[join], EndType.Polygon, Math.max(2, miterLimit), ARC_TOLERANCE * GRID);

export type Cap = 'butt' | 'round' | 'square';
const ENDS: { readonly [K in Cap]: EndType } = { butt: EndType.Butt, round: EndType.Round, square: EndType.Square };

/** The ribbon that lies within `by` pixels of open outlines. */
export const ribbonArea = (outlines: readonly Outline[], by: number, join: Join, cap: Cap, miterLimit: number): Area =>
  Clipper.inflatePaths(
    outlines.map(toGrid),
    by * GRID,
    JOINS[join],
    ENDS[cap],
    Math.max(2, miterLimit),
    ARC_TOLERANCE * GRID,
  );
