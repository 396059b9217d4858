/** Layers in depth: seen from an eye, in the order in which they hide each other. */
import type { Light, Point } from '../document/types';
import { cutByLine, sidesOf, within } from '../geometry/convex';
import { cornersOf } from '../geometry/bounds';
import { flattened } from '../geometry/flatten';
import {
  beforeEye,
  composed,
  flatHomography,
  type Homography,
  NEAREST,
  seenFrom,
  weightAt,
} from '../geometry/homography';
import { apply, translation, turn } from '../geometry/matrix';
import { cubicCount, isLine, polygon, reversed, turnOf } from '../geometry/outline';
import { inDepth, type Piece, projectedPoint } from '../geometry/planes';
import { applySpace, chained, type Eye, type Point3, type Space } from '../geometry/space';
import { marksThrough } from '../recipe/marksThrough';
import { dimmedBy, floodedBy } from '../recipe/covers/flood';
import { areaCut, boxOfMarks, flatFill, grouped, laidOver } from '../recipe/marks';
import type { AreaCut, Ink, Mark, Plane } from '../recipe/types';
import { isFromBehind } from './eye';

/** A plane, and whose it is. */
export interface PlaneOf<T> extends Plane {
  readonly of: T;
}

/** The planes of marks that stand somewhere in space: their own, and those that they bring along, in the order of the stack. */
export const planesIn = (
  marks: readonly Mark[],
  { space, back, lit, alpha, blend }: Omit<Plane, 'marks'>,
): readonly Plane[] => {
  const planes: Plane[] = [];
  let own: Mark[] = [];
  const flush = () => {
    if (own.length > 0) planes.push({ space, back, lit, alpha, blend, marks: own });
    own = [];
  };
  for (const mark of marks) {
    const brought = mark.op === 'group' ? mark.planes : undefined;
    if (!brought) {
      own.push(mark);
      continue;
    }
    flush();
    for (const plane of brought) {
      planes.push({
        ...plane,
        space: chained(space, plane.space),
        alpha: alpha * plane.alpha * mark.alpha,
        blend: blend === 'normal' ? plane.blend : blend,
      });
    }
  }
  flush();
  return planes;
};

interface Seen<T> extends PlaneOf<T> {
  readonly h: Homography;
  /** The part of it that is before the eye, in its own pixels. */
  readonly corners: readonly Point[];
}

/**
 * The share of its brightness that a light leaves of a plane, by the cosine between its normal and the way to the light (Lambert). A
 * plane is lit on the side that is seen.
 */
export const litBy = ({ turn: around, tilt, strength }: Light, space: Space, behind: boolean): number => {
  const [a, b] = [
    [space[0], space[4], space[8]],
    [space[1], space[5], space[9]],
  ] as const;
  const [x, y, z] = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
  const length = Math.hypot(x, y, z) || 1;
  const [[cosTurn, sinTurn], [cosTilt, sinTilt]] = [turn(around), turn(tilt)];
  // Unturned, the normal of the side that is seen comes towards the eye.
  const along = (-x * sinTurn * cosTilt + y * cosTurn * cosTilt + z * sinTilt) / length;
  return 1 - strength * (1 - Math.max(0, behind ? -along : along));
};

/** How far what lies under a seam reaches beyond it, in pixels of the scene: it is covered there. */
const UNDER = 2;
/** How far it reaches back over what it goes on from, so that the seam is closed there too. */
const OVER = 1;

const onScreen = (corners: readonly Point3[], eye: Eye): readonly Point[] =>
  corners.map((corner) => projectedPoint(eye, corner));

/**
 * The part of the screen that a piece is shown in: at a cut it reaches under the other part where that is drawn later. Its own
 * edges are left to what is drawn, which would be cut along them a second time.
 */
const areaOf = (piece: Piece, under: boolean, eye: Eye): AreaCut => {
  const corners = onScreen(piece.corners, eye);
  const far = 2 * Math.max(...corners.flat().map(Math.abs)) + UNDER;
  const around = cornersOf({ left: -far, top: -far, right: far, bottom: far });
  const area = within(around, sidesOf(corners), (side) => (under || !piece.cuts[side] ? UNDER : 0));
  return areaCut([polygon(area)]);
};

/** A part of a plane without dents that nothing shows through, which may meet another along a side. */
interface Face {
  readonly mark: Mark;
  readonly corners: readonly Point[];
}

const isOpaque = (ink: Ink): boolean =>
  (ink.style === 'solid' ? [ink] : ink.gradient.stops).every(({ color }) => color.length === 7);

/** The face of a plane: what its marks stand on; null where that shows something through, or is round. */
const faceOf = (marks: readonly Mark[]): Face | null => {
  const [mark] = marks;
  if (!mark || mark.alpha < 1) return null;
  if (mark.op === 'group') {
    return mark.blend !== 'normal' || mark.cuts || mark.effect || mark.bend ? null : faceOf(mark.marks);
  }
  if (mark.op === 'picture') {
    const { width, height } = mark.asset;
    const box = { left: -width / 2, top: -height / 2, right: width / 2, bottom: height / 2 };
    return mark.cut ? null : { mark, corners: cornersOf(box).map((corner) => apply(mark.matrix, corner)) };
  }
  const [outline, ...others] = mark.outlines;
  if (mark.op === 'stroke' || !outline || others.length > 0 || !isOpaque(mark.ink) || turnOf(outline) === 0)
    return null;
  const count = cubicCount(outline);
  if (!Array.from({ length: count }, (_, i) => i).every((i) => isLine(outline.points, i))) return null;
  return { mark, corners: flattened(outline).map((corner) => apply(mark.matrix, corner)) };
};

/** A face as it is seen. */
interface SeenFace extends Face {
  readonly h: Homography;
  readonly inEye: readonly Point3[];
  readonly shown: readonly Point[];
}

/** A side of a face: the line that it lies on, and from where to where along it. */
interface Side {
  readonly line: string;
  readonly along: Point3;
  /** The point of the line that is nearest to the origin. */
  readonly foot: Point3;
  readonly from: number;
  readonly to: number;
}

const rounded = ([x, y, z]: Point3, by: number): string =>
  `${Math.round(x * by)} ${Math.round(y * by)} ${Math.round(z * by)}`;
const dot = (a: Point3, b: Point3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const onLine = ({ foot, along }: Side, at: number): Point3 => [
  foot[0] + along[0] * at,
  foot[1] + along[1] * at,
  foot[2] + along[2] * at,
];

/** Sides that lie on one line have its name, to a hundredth of a pixel, whichever way they go. */
const sideOf = (a: Point3, b: Point3): Side => {
  const [x, y, z] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const length = Math.sqrt(x * x + y * y + z * z) || 1;
  const longer = (v: number, than: number): boolean => Math.abs(v) > Math.abs(than) + 1e-6;
  const flat = longer(y, x) ? y : x;
  const most = longer(z, flat) ? z : flat;
  const by = (most < 0 ? -1 : 1) / length;
  const along: Point3 = [x * by, y * by, z * by];
  const [s, t] = [dot(a, along), dot(b, along)];
  const foot: Point3 = [a[0] - along[0] * s, a[1] - along[1] * s, a[2] - along[2] * s];
  return {
    line: `${rounded(along, 1e4)} ${rounded(foot, 100)}`,
    along,
    foot,
    from: Math.min(s, t),
    to: Math.max(s, t),
  };
};

/** Where two sides of one line meet, to a hundredth of a pixel; null where they only touch. */
const meeting = (one: Side, other: Side): readonly [Point3, Point3] | null => {
  const [from, to] = [Math.max(one.from, other.from), Math.min(one.to, other.to)];
  return to - from > 0.01 ? [onLine(one, from), onLine(one, to)] : null;
};

/**
 * What closes the seam along a side of a face that meets one drawn before it. Each covers its share of the pixels there, and what
 * is behind both would show through both: so the earlier one is gone on with under the later one. `at` is the part of the later
 * one that is drawn; null where both are on one side of the seam, which is then their outermost edge.
 */
const seamUnder = (
  side: number,
  edge: readonly [Point, Point],
  later: SeenFace,
  at: readonly Point[],
  earlier: SeenFace,
): Mark | null => {
  const length = Math.hypot(edge[1][0] - edge[0][0], edge[1][1] - edge[0][1]);
  if (length < 1e-6) return null;
  // Only as long as both are.
  const [ax, ay] = [(edge[1][0] - edge[0][0]) / length, (edge[1][1] - edge[0][1]) / length];
  const along = (corners: readonly Point[]) =>
    cutByLine(
      cutByLine(corners, ax, ay, -(ax * edge[0][0] + ay * edge[0][1])),
      -ax,
      -ay,
      ax * edge[1][0] + ay * edge[1][1],
    );
  const [a, b, c] = sidesOf(later.shown).slice(side * 3, side * 3 + 3) as [number, number, number];
  const inside = (corners: readonly Point[]) => corners.reduce((sum, [x, y]) => sum + a * x + b * y + c, 0);
  if (inside(earlier.shown) >= 0) return null;
  // The two strips along the seam share a side, and are one path: between them there is no seam.
  const under = along(cutByLine(at, -a, -b, UNDER - c));
  const over = along(cutByLine(earlier.shown, a, b, c + OVER));
  const strips = [under, over].filter((corners) => corners.length >= 3);
  if (under.length < 3) return null;
  const turned = strips.map((corners) => polygon(corners)).map((o) => (turnOf(o) < 0 ? reversed(o) : o));
  const { mark } = earlier;
  if (mark.op === 'fill' && mark.ink.style === 'solid') return flatFill(turned, mark.ink.color);
  // What has no one colour is shown once more, moved under the other.
  const moved = composed(flatHomography(translation(a * UNDER, b * UNDER)), earlier.h);
  return grouped(marksThrough(moved, [mark]), { cuts: [areaCut(turned)] });
};

/** A plane as it is seen, shaded and from the side that is seen; null where nothing is. */
const seenBy = <T>(plane: PlaneOf<T>, eye: Eye, light: Light): Seen<T> | null => {
  const box = boxOfMarks(plane.marks);
  if (!box) return null;
  const h = seenFrom(eye, plane.space);
  const corners = beforeEye(h, cornersOf(box));
  const [corner] = corners;
  if (!corner || corners.length < 3) return null;
  const behind = isFromBehind(h, corner);
  const back = behind ? plane.back : null;
  if (back?.back === 'hidden') return null;
  const inked = back?.back === 'colored' ? floodedBy(back.backColor, plane.marks) : plane.marks;
  const share = plane.lit ? litBy(light, plane.space, behind) : 1;
  return { ...plane, marks: share < 1 ? dimmedBy(share, inked) : inked, h, corners };
};

/** Points of a plane's own pixels in the eye's space. */
const inEye = ({ space }: Plane, corners: readonly Point[], eye: Eye): readonly Point3[] => {
  const placed = chained(eye.to, space);
  return corners.map(([x, y]) => applySpace(placed, [x, y, 0]));
};

/** The face of a plane as it is seen; null for one that has none, or lets something through. */
const seenFace = <T>(plane: Seen<T>, eye: Eye): SeenFace | null => {
  const face = plane.alpha >= 1 && plane.blend === 'normal' ? faceOf(plane.marks) : null;
  if (!face || !face.corners.every((corner) => weightAt(plane.h, corner) >= NEAREST)) return null;
  const there = inEye(plane, face.corners, eye);
  return { ...face, h: plane.h, inEye: there, shown: onScreen(there, eye) };
};

/** Closes the seams between faces, as they are drawn one after another. */
class Seams {
  /** By the line of a side, the faces that have been drawn with one on it. */
  private readonly met = new Map<string, readonly { readonly face: SeenFace; readonly side: Side }[]>();

  constructor(private readonly eye: Eye) {}

  /** What is to be drawn before a face, or the part of it within `at`. */
  before(face: SeenFace, at: readonly Point[]): readonly Mark[] {
    return face.inEye.flatMap((corner, i) => {
      const side = sideOf(corner, face.inEye[(i + 1) % face.inEye.length] as Point3);
      const others = this.met.get(side.line) ?? [];
      if (!others.some((other) => other.face === face)) this.met.set(side.line, [...others, { face, side }]);
      return others.flatMap((other) => {
        const edge = other.face === face ? null : meeting(side, other.side);
        if (!edge) return [];
        const [p, q] = onScreen(edge, this.eye) as [Point, Point];
        return seamUnder(i, [p, q], face, at, other.face) ?? [];
      });
    });
  }
}

/** Marks of planes as they are seen, those first that others hide. Planes stand in the order of the stack, from the back. */
export const planesSeen = <T>(
  planes: readonly PlaneOf<T>[],
  eye: Eye,
  light: Light,
): readonly { readonly of: T; readonly mark: Mark }[] => {
  const seen = planes.flatMap((plane) => seenBy(plane, eye, light) ?? []);
  const drawn = seen.map((plane) => ({ marks: marksThrough(plane.h, plane.marks), face: seenFace(plane, eye) }));
  const pieces = inDepth(
    seen.map((plane) => inEye(plane, plane.corners, eye)),
    eye,
  );
  /** How many pieces of each are still to be drawn. */
  const left = new Map<number, number>();
  for (const { of } of pieces) left.set(of, (left.get(of) ?? 0) + 1);
  const divided = new Set([...left].flatMap(([of, count]) => (count > 1 ? [of] : [])));
  const seams = new Seams(eye);
  return pieces.flatMap((piece) => {
    const plane = seen[piece.of] as Seen<T>;
    const { marks, face } = drawn[piece.of] as (typeof drawn)[number];
    const rest = (left.get(piece.of) as number) - 1;
    left.set(piece.of, rest);
    const parted = divided.has(piece.of);
    const shown = parted ? [grouped(marks, { cuts: [areaOf(piece, rest > 0, eye)] })] : marks;
    const mark = laidOver(shown, plane.blend, plane.alpha);
    if (!mark) return [];
    const part = face && (parted ? within(onScreen(piece.corners, eye), sidesOf(face.shown)) : face.shown);
    return [...(face && part ? seams.before(face, part) : []), mark].map((own) => ({ of: plane.of, mark: own }));
  });
};
