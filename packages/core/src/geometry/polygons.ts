/**
 * Areas combined and offset: clipper2 on outlines flattened to lines, on a grid of 1/256 px. What it
 * gives no longer has the curves it came from, so it works after morphing.
 */
// From its own modules: the package as a whole is twice as heavy, which banners would carry.
import { ClipType, FillRule, type Path64, type Paths64, PathType } from 'clipper2-ts/dist/Core.js';
import { Clipper64 } from 'clipper2-ts/dist/Engine.js';
import { ClipperOffset, EndType, JoinType } from 'clipper2-ts/dist/Offset.js';
import { pairsThatMeet, type Runs } from './crossings';
import { flattened } from './flatten';
import { type Outline, polygon } from './outline';

const GRID = 256;

/** How far a round join may lie from its arc, in pixels. */
const ARC_TOLERANCE = 0.02;
const MOST_PAIRS = 400_000;
const PER_POINT = 4;
const PER_PAIR = 0.5;
/** The sweep's queue is a sorted list: each point moves a share of the others along. */
const QUEUE = 1e-4;
/** Growing an area makes more points of each. */
const QUEUE_OF_GROWTH = 5e-4;

const toGrid = (outline: Outline): Path64 =>
  flattened(outline).map(([x, y]) => ({ x: Math.round(x * GRID), y: Math.round(y * GRID) }));

const fromGrid = (paths: Paths64): Outline[] =>
  paths.filter((path) => path.length > 2).map((path) => polygon(path.map(({ x, y }) => [x / GRID, y / GRID])));

/** An area: its boundary does not cross itself, holes run against their rims. */
export type Area = Paths64;

/** Lines of a round join that turns once round (clipper2, ClipperOffset). */
const linesRound = (by: number): number => Math.PI / Math.acos(1 - Math.min(1, ARC_TOLERANCE / Math.abs(by)));

/**
 * What it takes to combine the areas of outlines: about as many segments could be drawn meanwhile. Measured: a pair of lines
 * that meet costs two microseconds, and a point up to twenty, where others stand beside it.
 */
export const intricacyOf = (outlines: readonly Outline[]): number => {
  const runs = outlines.map(toGrid);
  const points = runs.reduce((sum, run) => sum + run.length, 0);
  return PER_POINT * points + Math.round(QUEUE * points ** 2 + PER_PAIR * pairsThatMeet(runs, MOST_PAIRS));
};

/** How much further than a side a mitre reaches at the corner where a run's line begins, no further than the limit. */
const mitreAt = (run: Path64, line: number, limit: number): number => {
  const at = (i: number) => run[(i + run.length) % run.length] as Path64[number];
  const [p, q, r] = [at(line - 1), at(line), at(line + 1)];
  const [ax, ay, bx, by] = [q.x - p.x, q.y - p.y, r.x - q.x, r.y - q.y];
  const cos = (ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by) || 1);
  const reach = Math.sqrt(2 / Math.max(1e-9, 1 + cos));
  return reach <= limit ? reach : 1;
};

/**
 * What it takes to grow an area by so many pixels, or open outlines into ribbons: as for intricacyOf. Counted are the lines
 * that come to lie near each other, mitres as far as they reach; one of arcs costs a tenth for each of its lines.
 */
export const intricacyOfGrowth = (
  area: Area,
  open: readonly Outline[],
  by: number,
  join: Join,
  miterLimit: number,
): number => {
  const runs = [...area, ...open.map(toGrid)];
  const each = (join === 'round' ? Math.max(20, linesRound(by)) : 20) / 40;
  const points = runs.reduce((sum, run) => sum + run.length, 0);
  const mitre = (run: Runs[number], line: number) =>
    join === 'miter'
      ? Math.max(mitreAt(run as Path64, line, miterLimit), mitreAt(run as Path64, line + 1, miterLimit))
      : 1;
  const near = pairsThatMeet(runs, MOST_PAIRS, (run, line) => Math.abs(by) * GRID * mitre(run, line));
  return PER_POINT * points + Math.round(QUEUE_OF_GROWTH * points ** 2 + each * near);
};

const clipped = (type: ClipType, subject: Paths64, clip: Paths64, rule: FillRule): Area => {
  const clipper = new Clipper64();
  clipper.addPaths(subject, PathType.Subject);
  clipper.addPaths(clip, PathType.Clip);
  const solution: Paths64 = [];
  clipper.execute(type, rule, solution);
  return solution;
};
const united = (areas: Paths64, rule: FillRule): Area => clipped(ClipType.Union, areas, [], rule);

const inflated = (paths: Paths64, by: number, join: Join, end: EndType, miterLimit: number): Area => {
  const offset = new ClipperOffset(Math.max(2, miterLimit), ARC_TOLERANCE * GRID);
  offset.addPaths(paths, JOINS[join], end);
  const solution: Paths64 = [];
  offset.execute(by * GRID, solution);
  return solution;
};

/** The area that outlines fill by a rule; open ones are closed by a straight line, as a fill does. */
export const areaOf = (outlines: readonly Outline[], rule: 'nonzero' | 'evenodd' = 'nonzero'): Area =>
  united(outlines.map(toGrid), rule === 'nonzero' ? FillRule.NonZero : FillRule.EvenOdd);

export const outlinesOf = (area: Area): Outline[] => fromGrid(area);

export type Operation = 'union' | 'intersect' | 'subtract' | 'exclude';

/** The area that areas give together: all of them, what they share, the first without the others, what an odd number covers. */
export const combined = (operation: Operation, areas: readonly Area[]): Area => {
  const [first, ...rest] = areas;
  if (!first || rest.length === 0) return first ?? [];
  switch (operation) {
    case 'union':
      return united(areas.flat(), FillRule.NonZero);
    case 'subtract':
      return clipped(ClipType.Difference, first, rest.flat(), FillRule.NonZero);
    case 'exclude':
      return united(areas.flat(), FillRule.EvenOdd);
    case 'intersect':
      return rest.reduce((sum, area) => clipped(ClipType.Intersection, sum, area, FillRule.NonZero), first);
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
  inflated(area, by, join, EndType.Polygon, miterLimit);

export type Cap = 'butt' | 'round' | 'square';
const ENDS: { readonly [K in Cap]: EndType } = { butt: EndType.Butt, round: EndType.Round, square: EndType.Square };

/** The ribbon that lies within `by` pixels of outlines: of closed ones on both sides of their rim, of open ones round their ends too. */
export const ribbonArea = (
  outlines: readonly Outline[],
  by: number,
  join: Join,
  cap: Cap,
  miterLimit: number,
): Area => {
  const ribbons = (list: readonly Outline[], end: EndType): Area =>
    list.length === 0 ? [] : inflated(list.map(toGrid), by, join, end, miterLimit);
  const open = ribbons(
    outlines.filter(({ closed }) => !closed),
    ENDS[cap],
  );
  const round = ribbons(
    outlines.filter(({ closed }) => closed),
    EndType.Joined,
  );
  return open.length > 0 && round.length > 0 ? united([...open, ...round], FillRule.NonZero) : [...open, ...round];
};
