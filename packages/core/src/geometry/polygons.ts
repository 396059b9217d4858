/**
 * Areas combined and offset: clipper2 on outlines flattened to lines, on a grid of 1/256 px. What it
 * gives no longer has the curves it came from, so it works after morphing.
 */
import { Clipper, ClipType, EndType, FillRule, JoinType, type Path64, type Paths64 } from 'clipper2-ts';
import { flattened } from './flatten';
import { type Outline, polygon } from './outline';

const GRID = 256;

const toGrid = (outline: Outline): Path64 =>
  flattened(outline).map(([x, y]) => ({ x: Math.round(x * GRID), y: Math.round(y * GRID) }));

const fromGrid = (paths: Paths64): Outline[] =>
  paths.filter((path) => path.length > 2).map((path) => polygon(path.map(({ x, y }) => [x / GRID, y / GRID])));

/** An area: its boundary does not cross itself, holes run against their rims. */
export type Area = Paths64;

/** The area that outlines fill by a rule; open ones are closed by a straight line, as a fill does. */
export const areaOf = (outlines: readonly Outline[], rule: 'nonzero' | 'evenodd' = 'nonzero'): Area =>
  Clipper.union(outlines.map(toGrid), rule === 'nonzero' ? FillRule.NonZero : FillRule.EvenOdd);

export const outlinesOf = (area: Area): Outline[] => fromGrid(area);

export type Operation = 'union' | 'intersect' | 'subtract' | 'exclude';

const CLIP: { readonly [K in Operation]: ClipType } = {
  union: ClipType.Union,
  intersect: ClipType.Intersection,
  subtract: ClipType.Difference,
  exclude: ClipType.Xor,
};

export const combined = (operation: Operation, a: Area, b: Area): Area =>
  Clipper.booleanOp(CLIP[operation], a, b, FillRule.NonZero);

export type Join = 'miter' | 'round' | 'bevel';
const JOINS: { readonly [K in Join]: JoinType } = {
  miter: JoinType.Miter,
  round: JoinType.Round,
  bevel: JoinType.Bevel,
};

/** The area grown by `by` pixels, or shrunk by a negative one. */
export const grownArea = (area: Area, by: number, join: Join, miterLimit: number): Area =>
  Clipper.inflatePaths(area, by * GRID, JOINS[join], EndType.Polygon, Math.max(2, miterLimit), 0.02 * GRID);

export type Cap = 'butt' | 'round' | 'square';
const ENDS: { readonly [K in Cap]: EndType } = { butt: EndType.Butt, round: EndType.Round, square: EndType.Square };

/** The ribbon that lies within `by` pixels of open outlines. */
export const ribbonArea = (outlines: readonly Outline[], by: number, join: Join, cap: Cap, miterLimit: number): Area =>
  Clipper.inflatePaths(outlines.map(toGrid), by * GRID, JOINS[join], ENDS[cap], Math.max(2, miterLimit), 0.02 * GRID);
