/**
 * Flat pieces in space, put in the order in which they are to be drawn: what is farther first, and what cuts through another
 * divided along the line where they meet. Painter's order by planes after Newell, Newell and Sancha (A Solution to the Hidden
 * Surface Problem, 1972): two pieces are compared by the side of each other's plane that they lie on, and only where they overlap.
 */
import type { Point } from '../document/types';
import { sidesOf, within } from './convex';
import type { Eye, Point3 } from './space';

/** A convex piece of a plane, in the eye's own space. */
export interface Piece {
  /** Which of the polygons it is of. */
  readonly of: number;
  readonly corners: readonly Point3[];
  /** Whether the side from each corner to the next is a cut, and none of the polygon's own. */
  readonly cuts: readonly boolean[];
}

/** How far a corner may lie from a plane and still be on it, in pixels. */
const ON_PLANE = 1e-3;
/** Pieces that share no more than this are side by side. */
const BESIDE = 1e-3;
/** Beyond so many pieces what still crosses is put in order as a whole. */
const MOST_PIECES = 6_000;
const MOST_ROUNDS = 2_000;

interface Seen extends Piece {
  /** Unit normal towards the eye, and how far along it the plane lies. */
  readonly normal: Point3;
  readonly offset: number;
  readonly shown: readonly Point[];
  /** For each side on the screen a, b and c: `a x + b y + c` is how far inside of it a point lies. */
  readonly sides: readonly number[];
  readonly box: readonly [left: number, top: number, right: number, bottom: number];
}

export const projectedPoint = ({ middle, distance }: Pick<Eye, 'middle' | 'distance'>, corner: Point3): Point => {
  const w = 1 + corner[2] / distance;
  return [middle[0] + (corner[0] - middle[0]) / w, middle[1] + (corner[1] - middle[1]) / w];
};

const dot = (a: Point3, b: Point3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

// What follows is done for every piece of every frame: coordinates are taken by their places, since taking an array apart is slow.

/** The normal of a polygon, as long as twice its area (Newell's method). */
const normalOf = (corners: readonly Point3[]): Point3 => {
  let x = 0;
  let y = 0;
  let z = 0;
  for (let i = 0; i < corners.length; i++) {
    const p = corners[i]!;
    const q = corners[i + 1 < corners.length ? i + 1 : 0]!;
    x += (p[1] - q[1]) * (p[2] + q[2]);
    y += (p[2] - q[2]) * (p[0] + q[0]);
    z += (p[0] - q[0]) * (p[1] + q[1]);
  }
  return [x, y, z];
};

/** A piece as the eye sees it; null for one that is seen from its edge. */
const seen = (piece: Piece, eye: Eye): Seen | null => {
  const raw = normalOf(piece.corners);
  const length = Math.sqrt(dot(raw, raw));
  if (!(length > 1e-9)) return null;
  const offset = dot(raw, piece.corners[0]!) / length;
  const towards =
    eye.distance === Infinity
      ? -raw[2] / length
      : (raw[0] * eye.middle[0] + raw[1] * eye.middle[1] - raw[2] * eye.distance) / length - offset;
  if (Math.abs(towards) < 1e-9) return null;
  const way = Math.sign(towards);
  const k = way / length;
  const shown: Point[] = [];
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  let bottom = -Infinity;
  for (const corner of piece.corners) {
    const at = projectedPoint(eye, corner);
    shown.push(at);
    if (at[0] < left) left = at[0];
    if (at[0] > right) right = at[0];
    if (at[1] < top) top = at[1];
    if (at[1] > bottom) bottom = at[1];
  }
  return {
    of: piece.of,
    corners: piece.corners,
    cuts: piece.cuts,
    normal: [raw[0] * k, raw[1] * k, raw[2] * k],
    offset: offset * way,
    shown,
    sides: sidesOf(shown),
    box: [left, top, right, bottom],
  };
};

const sideOf = ({ normal, offset }: Seen, corner: Point3): number => dot(normal, corner) - offset;

/** On which sides of a plane the corners of a piece lie: towards the eye 1, away 2, both 3, in it 0. */
const wayFrom = (piece: Piece, plane: Seen): number => {
  let sides = 0;
  for (const corner of piece.corners) {
    const side = sideOf(plane, corner);
    if (side > ON_PLANE) sides |= 1;
    else if (side < -ON_PLANE) sides |= 2;
  }
  return sides;
};

const boxesMeet = (a: Seen, b: Seen): boolean =>
  a.box[0] < b.box[2] - BESIDE &&
  b.box[0] < a.box[2] - BESIDE &&
  a.box[1] < b.box[3] - BESIDE &&
  b.box[1] < a.box[3] - BESIDE;

/** Whether a side of one convex polygon has all of the other beyond it. */
const isApart = (a: Seen, b: Seen): boolean => {
  const { sides } = a;
  const { shown } = b;
  for (let i = 0; i < sides.length; i += 3) {
    let k = 0;
    while (k < shown.length) {
      const at = shown[k]!;
      if (sides[i]! * at[0] + sides[i + 1]! * at[1] + sides[i + 2]! > BESIDE) break;
      k++;
    }
    if (k === shown.length) return true;
  }
  return false;
};

/** How far along the line of sight through a point of the screen a plane lies: more is farther. */
const depthAt = ({ normal, offset }: Seen, { middle: [cx, cy], distance }: Eye, [x, y]: Point): number => {
  if (distance === Infinity) return (offset - normal[0] * x - normal[1] * y) / normal[2];
  const way: Point3 = [(x - cx) / distance, (y - cy) / distance, 1];
  return (offset - dot(normal, [cx, cy, -distance])) / dot(normal, way);
};

type Order = 'before' | 'after' | 'apart' | 'crossing';

/** When a piece is to be drawn, beside another; `a` stands behind `b` in the stack. */
const orderOf = (a: Seen, b: Seen, eye: Eye): Order => {
  if (!boxesMeet(a, b) || isApart(a, b) || isApart(b, a)) return 'apart';
  const own = wayFrom(a, b);
  // In one plane the stack decides.
  if (own === 0 || own === 2) return 'before';
  if (own === 1) return 'after';
  const other = wayFrom(b, a);
  if (other === 0 || other === 1) return 'before';
  if (other === 2) return 'after';
  // Both reach through the other's plane: where they overlap it shows whether they meet.
  let [nearer, farther] = [false, false];
  for (const at of within(a.shown, b.sides)) {
    const by = depthAt(a, eye, at) - depthAt(b, eye, at);
    if (by > ON_PLANE) farther = true;
    else if (by < -ON_PLANE) nearer = true;
  }
  if (nearer && farther) return 'crossing';
  return nearer ? 'after' : 'before';
};

/** The two parts of a piece on the sides of a plane; null where one of them would be nothing. */
const divided = (piece: Piece, by: Seen): readonly [Piece, Piece] | null => {
  const sides = piece.corners.map((corner) => sideOf(by, corner));
  const part = (way: 1 | -1): Piece | null => {
    const corners: Point3[] = [];
    const cuts: boolean[] = [];
    piece.corners.forEach((p, i) => {
      const next = (i + 1) % piece.corners.length;
      const q = piece.corners[next] as Point3;
      const [here, there] = [sides[i]! * way, sides[next]! * way];
      const own = piece.cuts[i] ?? false;
      if (here >= 0) {
        corners.push(p);
        // From a corner in the plane itself the cut goes on to where it is left again.
        cuts.push(there < 0 && here === 0 ? true : own);
      }
      if ((here > 0 && there < 0) || (here < 0 && there > 0)) {
        const t = here / (here - there);
        corners.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]);
        cuts.push(here > 0 ? true : own);
      }
    });
    return corners.length >= 3 ? { of: piece.of, corners, cuts } : null;
  };
  const [near, far] = [part(1), part(-1)];
  return near && far ? [far, near] : null;
};

/** Finds among pieces on the screen those whose boxes may meet one: cells of a grid, each with what touches it. */
class Cells {
  private readonly cells: number[][];
  private readonly left: number;
  private readonly top: number;
  private readonly across: number;
  private readonly down: number;
  private readonly looked: number[] = [];
  private turn = 0;

  /** `side` cells along each side. */
  constructor(
    boxes: readonly Seen['box'][],
    private readonly side: number,
  ) {
    const edge = (k: number, of: typeof Math.min) =>
      boxes.reduce((sum, box) => of(sum, box[k] as number), boxes[0]?.[k] ?? 0);
    this.left = edge(0, Math.min);
    this.top = edge(1, Math.min);
    this.across = side / Math.max(1e-6, edge(2, Math.max) - this.left);
    this.down = side / Math.max(1e-6, edge(3, Math.max) - this.top);
    this.cells = Array.from({ length: side * side }, () => []);
  }

  private each([left, top, right, bottom]: Seen['box'], visit: (cell: number[]) => void): void {
    const last = this.side - 1;
    const from = Math.min(last, Math.max(0, Math.floor((left - this.left) * this.across)));
    const to = Math.min(last, Math.max(0, Math.floor((right - this.left) * this.across)));
    const low = Math.min(last, Math.max(0, Math.floor((bottom - this.top) * this.down)));
    for (let y = Math.min(last, Math.max(0, Math.floor((top - this.top) * this.down))); y <= low; y++) {
      for (let x = from; x <= to; x++) visit(this.cells[y * this.side + x] as number[]);
    }
  }

  add(index: number, box: Seen['box']): void {
    this.each(box, (cell) => cell.push(index));
  }

  /** In no order, each once. */
  near(box: Seen['box']): readonly number[] {
    const found: number[] = [];
    this.turn++;
    this.each(box, (cell) => {
      for (const index of cell) {
        if (this.looked[index] === this.turn) continue;
        this.looked[index] = this.turn;
        found.push(index);
      }
    });
    return found;
  }
}

/** Pieces, and which are drawn over which. */
class Stack {
  readonly placed: Seen[] = [];
  /** The pieces that are drawn over each; null for one that has been divided since. */
  private readonly over: (number[] | null)[] = [];
  private readonly cells: Cells;
  private readonly eye: Eye;
  /** Without those that were divided. */
  private count = 0;

  constructor(pieces: readonly Seen[], eye: Eye) {
    this.eye = eye;
    const side = Math.min(64, Math.max(1, Math.ceil(Math.sqrt(pieces.length))));
    this.cells = new Cells(
      pieces.map(({ box }) => box),
      side,
    );
    for (const piece of pieces) this.add(piece);
  }

  private add(first: Seen): void {
    const open = [first];
    for (let own = open.pop(); own; own = open.pop()) {
      const [under, upper]: [number[], number[]] = [[], []];
      let parts: readonly Seen[] | null = null;
      for (const i of this.cells.near(own.box)) {
        if (this.over[i] === null) continue;
        const other = this.placed[i] as Seen;
        // Of what stands behind it in the stack, or is a part of the same.
        const order = other.of <= own.of ? orderOf(other, own, this.eye) : flipped(orderOf(own, other, this.eye));
        if (order === 'apart') continue;
        if (order === 'crossing') parts = this.divided(own, other);
        if (parts) break;
        (order === 'after' ? upper : under).push(i);
      }
      if (parts) {
        open.push(...parts);
        continue;
      }
      const index = this.placed.length;
      for (const i of under) (this.over[i] as number[]).push(index);
      this.over.push(upper);
      this.cells.add(index, own.box);
      this.placed.push(own);
      this.count++;
    }
  }

  private divided(piece: Seen, by: Seen): readonly Seen[] | null {
    const parts = this.count < MOST_PIECES ? divided(piece, by) : null;
    return parts && parts.flatMap((part) => seen(part, this.eye) ?? []);
  }

  /** Those that nothing waits for first, of these the one that stands behind; and what waits in a circle. */
  sorted(): { readonly order: readonly number[]; readonly left: readonly number[] } {
    const waits = new Int32Array(this.placed.length);
    for (const list of this.over) for (const i of list ?? []) waits[i]! += 1;
    const ready: number[] = [];
    const before = (a: number, b: number) => this.placed[a]!.of - this.placed[b]!.of || a - b;
    // From the one that comes last to the one that comes first.
    this.over.forEach((list, i) => list && waits[i] === 0 && ready.push(i));
    ready.sort((a, b) => before(b, a));
    const order: number[] = [];
    for (let at = ready.pop(); at !== undefined; at = ready.pop()) {
      order.push(at);
      for (const i of this.over[at] ?? []) {
        if (this.over[i] === null || --waits[i]! > 0) continue;
        let k = ready.length;
        while (k > 0 && before(ready[k - 1] as number, i) < 0) k--;
        ready.splice(k, 0, i);
      }
    }
    const left: number[] = [];
    this.over.forEach((list, i) => list && waits[i]! > 0 && left.push(i));
    return { order, left };
  }

  /** Divides one of the pieces that each cover the next in a circle; false where none can be. */
  breakCircle(left: readonly number[]): boolean {
    const circle = this.circleIn(left);
    for (const [n, i] of circle.entries()) {
      for (const k of [circle[(n + 1) % circle.length] as number, circle.at(n - 1) as number]) {
        const [piece, by] = [this.placed[i] as Seen, this.placed[k] as Seen];
        const parts = wayFrom(piece, by) === 3 ? this.divided(piece, by) : null;
        if (!parts) continue;
        this.over[i] = null;
        this.count--;
        for (const part of parts) this.add(part);
        return true;
      }
    }
    return false;
  }

  /** Of pieces that wait in circles or for such, some in a circle, each drawn over the one before. */
  private circleIn(left: readonly number[]): readonly number[] {
    const among = new Set(left);
    const waitsFor = new Map<number, number>();
    for (const i of left) for (const k of this.over[i] ?? []) if (among.has(k)) waitsFor.set(k, i);
    const met = new Map<number, number>();
    const way: number[] = [];
    for (let at = left[0] as number; ; at = waitsFor.get(at) as number) {
      const since = met.get(at);
      if (since !== undefined) return way.slice(since).reverse();
      met.set(at, way.length);
      way.push(at);
    }
  }
}

const flipped = (order: Order): Order => (order === 'before' ? 'after' : order === 'after' ? 'before' : order);

/**
 * The pieces in the order in which they are drawn. `polygons` are convex, in the eye's space, all before the eye, and stand in
 * the order of the stack, from the back: that order is kept in one plane, and where they do not overlap.
 */
export const inDepth = (polygons: readonly (readonly Point3[])[], eye: Eye): readonly Piece[] => {
  const pieces = polygons.flatMap((corners, of) => seen({ of, corners, cuts: corners.map(() => false) }, eye) ?? []);
  const stack = new Stack(pieces, eye);
  for (let round = 0; ; round++) {
    const { order, left } = stack.sorted();
    if (left.length > 0 && round < MOST_ROUNDS && stack.breakCircle(left)) continue;
    return [...order, ...left].map((i) => stack.placed[i] as Seen);
  }
};
