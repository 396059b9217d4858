/** Layers in depth: seen from an eye, in the order in which they hide each other. */
import type { Color, Point, Scene } from '../document/types';
import { areaScaleAt, beforeEye, cornersOf, cutByLine, type Homography, seenFrom } from '../geometry/homography';
import { IDENTITY } from '../geometry/matrix';
import { polygon } from '../geometry/outline';
import { inDepth, type Piece, projectedPoint } from '../geometry/planes';
import { applySpace, chained, type Eye, flatSpace, type Point3, type Space } from '../geometry/space';
import { marksThrough, type Through } from '../recipe/bent';
import { floodedBy } from '../recipe/covers/flood';
import { areaCut, boxOfMarks, grouped } from '../recipe/marks';
import type { AreaCut, Mark } from '../recipe/types';
import { isSpace, type Pose } from './placement';

/** Degrees that a scene is wide, from where its depth is looked at. */
const ANGLE = 40;

/** From where a scene is looked at. */
export const eyeOf = ({ width, height }: Pick<Scene, 'width' | 'height'>): Eye => ({
  to: flatSpace(IDENTITY),
  middle: [width / 2, height / 2],
  distance: width / 2 / Math.tan((ANGLE / 2) * (Math.PI / 180)),
});

/** From the pixels of what stands somewhere to those of the scene. */
export const throughOf = (eye: Eye, pose: Pose): Through => (isSpace(pose) ? seenFrom(eye, pose) : pose);

/** What a plane shows where it is seen from behind. */
export type Back = { readonly back: 'shown' | 'hidden' | 'colored'; readonly backColor: Color };

/** Marks in a plane of their own. */
export interface Plane<T> {
  /** Whose they are. */
  readonly of: T;
  readonly space: Space;
  readonly marks: readonly Mark[];
  readonly back: Back | null;
  /** How they are laid over what is behind them; null for not at all. */
  readonly laid: (marks: readonly Mark[]) => Mark | null;
}

interface Seen<T> extends Plane<T> {
  readonly h: Homography;
  /** The part of it that is before the eye, in its own pixels. */
  readonly corners: readonly Point[];
}

/** How far what lies under a seam reaches beyond it, in pixels of the scene: it is covered there. */
const UNDER = 2;

/** Whether a plane is seen from behind; one that its own scale mirrors has its front turned round with it. */
const isFromBehind = (h: Homography, corner: Point): boolean => areaScaleAt(h, corner) < 0;

/** The sides of a convex polygon pushed outwards, those that are wanted. */
const pushedOut = (corners: readonly Point[], wanted: readonly boolean[]): readonly Point[] => {
  if (!wanted.includes(true)) return corners;
  let area = 0;
  corners.forEach(([x, y], i) => {
    const [u, v] = corners[(i + 1) % corners.length] as Point;
    area += x * v - u * y;
  });
  const way = Math.sign(area);
  // What the lines along its sides leave of a square around it.
  const far = 2 * Math.max(...corners.flat().map(Math.abs)) + UNDER;
  let rest: readonly Point[] = cornersOf({ left: -far, top: -far, right: far, bottom: far });
  corners.forEach(([x, y], i) => {
    const [u, v] = corners[(i + 1) % corners.length] as Point;
    const length = Math.hypot(u - x, v - y);
    if (length < 1e-9) return;
    const [a, b] = [((y - v) / length) * way, ((u - x) / length) * way];
    rest = cutByLine(rest, a, b, -(a * x + b * y) + (wanted[i] ? UNDER : 0));
  });
  return rest;
};

/** The part of the screen that a piece is shown in: at a cut it reaches under the other part, which is drawn later, or is it. */
const areaOf = (piece: Piece, under: boolean, eye: Eye): AreaCut => {
  const corners = piece.corners.map((corner) => projectedPoint(eye, corner));
  return areaCut([polygon(under ? pushedOut(corners, piece.cuts) : corners)]);
};

/** Marks of planes as they are seen, those first that others hide. Planes stand in the order of the stack, from the back. */
export const planesSeen = <T>(
  planes: readonly Plane<T>[],
  eye: Eye,
): readonly { readonly of: T; readonly mark: Mark }[] => {
  const seen = planes.flatMap((plane): Seen<T>[] => {
    const box = boxOfMarks(plane.marks);
    if (!box) return [];
    const h = seenFrom(eye, plane.space);
    const corners = beforeEye(h, cornersOf(box));
    const [corner] = corners;
    if (!corner || corners.length < 3) return [];
    const behind = plane.back && plane.back.back !== 'shown' && isFromBehind(h, corner) ? plane.back : null;
    if (behind?.back === 'hidden') return [];
    return [{ ...plane, ...(behind && { marks: floodedBy(behind.backColor, plane.marks) }), h, corners }];
  });
  const polygons = seen.map(({ space, corners }): readonly Point3[] => {
    const placed = chained(eye.to, space);
    return corners.map(([x, y]) => applySpace(placed, [x, y, 0]));
  });
  const pieces = inDepth(polygons, eye);
  const left = new Map<number, number>();
  for (const { of } of pieces) left.set(of, (left.get(of) ?? 0) + 1);
  const divided = new Set([...left].flatMap(([of, count]) => (count > 1 ? [of] : [])));
  const bent = new Map<number, readonly Mark[]>();
  return pieces.flatMap((piece) => {
    const { of } = piece;
    const plane = seen[of] as Seen<T>;
    const marks = bent.get(of) ?? marksThrough(plane.h, plane.marks);
    bent.set(of, marks);
    const rest = (left.get(of) as number) - 1;
    left.set(of, rest);
    const shown = divided.has(of) ? [grouped(marks, { cuts: [areaOf(piece, rest > 0, eye)] })] : marks;
    const mark = plane.laid(shown);
    return mark ? [{ of: plane.of, mark }] : [];
  });
};
