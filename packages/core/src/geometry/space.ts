/** Places in three dimensions: x to the right, y down, z away from the viewer. */
import type { Point } from '../document/types';
import { type Matrix, turn } from './matrix';

export type Point3 = readonly [x: number, y: number, z: number];

/** Three rows of four: what x, y and z come to, of x, y, z and 1. */
export type Space = readonly [
  ...x: readonly [number, number, number, number],
  ...y: readonly [number, number, number, number],
  ...z: readonly [number, number, number, number],
];

/** A place in the plane of the scene. */
export const flatSpace = ([a, b, c, d, e, f]: Matrix): Space => [a, c, 0, e, b, d, 0, f, 0, 0, 1, 0];

/** So many pixels away from the eye. */
export const translationAway = (z: number): Space => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, z];

export const applySpace = (s: Space, [x, y, z]: Point3): Point3 => [
  s[0] * x + s[1] * y + s[2] * z + s[3],
  s[4] * x + s[5] * y + s[6] * z + s[7],
  s[8] * x + s[9] * y + s[10] * z + s[11],
];

/** `m` after `n`: the point goes through `n` first. */
export const chained = (m: Space, n: Space): Space => {
  const out = new Array<number>(12);
  for (let row = 0; row < 12; row += 4) {
    for (let column = 0; column < 4; column++) {
      out[row + column] =
        m[row]! * n[column]! +
        m[row + 1]! * n[4 + column]! +
        m[row + 2]! * n[8 + column]! +
        (column === 3 ? m[row + 3]! : 0);
    }
  }
  return out as unknown as Space;
};

/** null for one that flattens everything into a plane. */
export const invertedSpace = (s: Space): Space | null => {
  const [a, b, c, x, d, e, f, y, g, h, i, z] = s;
  const [A, B, C] = [e * i - f * h, f * g - d * i, d * h - e * g];
  const whole = a * A + b * B + c * C;
  if (!(Math.abs(whole) > 1e-12)) return null;
  const r = [A, c * h - b * i, b * f - c * e, B, a * i - c * g, c * d - a * f, C, b * g - a * h, a * e - b * d].map(
    (v) => v / whole,
  ) as [number, number, number, number, number, number, number, number, number];
  const back = (row: number) => -(r[row]! * x + r[row + 1]! * y + r[row + 2]! * z);
  return [r[0], r[1], r[2], back(0), r[3], r[4], r[5], back(3), r[6], r[7], r[8], back(6)];
};

export interface DepthPlacement {
  readonly position: Point;
  readonly z: number;
  readonly pivot: Point;
  readonly pivotZ: number;
  readonly scale: Point;
  readonly scaleZ: number;
  /** Degrees: about x the top goes away, about y the right side, about z it is clockwise. */
  readonly turnX: number;
  readonly turnY: number;
  readonly rotation: number;
}

/**
 * Moves the pivot to the origin, scales, turns about z, y and x in turn, then moves to the position. Turns go the way of CSS
 * Transforms Module Level 2, 13 (rotateX, rotateY and rotateZ one after another), whose z comes towards the viewer.
 */
export const placedInSpace = (p: DepthPlacement): Space => {
  const [cx, sx] = turn(p.turnX);
  const [cy, sy] = turn(p.turnY);
  const [cz, sz] = turn(p.rotation);
  const [kx, ky, kz] = [p.scale[0], p.scale[1], p.scaleZ];
  const [px, py] = p.pivot;
  const moved = (to: number, a: number, b: number, c: number): number => to - a * px - b * py - c * p.pivotZ;
  const [xx, xy, xz] = [cy * cz * kx, -cy * sz * ky, -sy * kz];
  const [yx, yy, yz] = [(cx * sz + sx * sy * cz) * kx, (cx * cz - sx * sy * sz) * ky, sx * cy * kz];
  const [zx, zy, zz] = [(-sx * sz + cx * sy * cz) * kx, (-sx * cz - cx * sy * sz) * ky, cx * cy * kz];
  const [x, y, z] = [moved(p.position[0], xx, xy, xz), moved(p.position[1], yx, yy, yz), moved(p.z, zx, zy, zz)];
  return [xx, xy, xz, x, yx, yy, yz, y, zx, zy, zz, z];
};

/**
 * The turns and the scale of a place in space, about no pivot: the other way round of placedInSpace. What it slants, as what hangs from
 * something that is stretched unevenly, is left out. Where the right side is turned straight away, the turn about z is 0.
 */
export const decomposedSpace = (s: Space): Omit<DepthPlacement, 'pivot' | 'pivotZ'> => {
  const length = (column: number) => Math.hypot(s[column]!, s[column + 4]!, s[column + 8]!);
  const [kx, ky, kz] = [length(0), length(1), length(2)];
  const whole =
    s[0] * (s[5] * s[10] - s[6] * s[9]) - s[1] * (s[4] * s[10] - s[6] * s[8]) + s[2] * (s[4] * s[9] - s[5] * s[8]);
  // A mirrored place is one whose z is turned round.
  const away = whole < 0 ? -kz : kz;
  const at = (i: number, by: number): number => (Math.abs(by) > 1e-12 ? s[i]! / by : 0);
  const degrees = (angle: number): number => (angle * 180) / Math.PI + 0;
  const sine = Math.min(1, Math.max(-1, -at(2, away)));
  const upright = Math.abs(sine) > 1 - 1e-12;
  return {
    position: [s[3], s[7]],
    z: s[11],
    scale: [kx, ky],
    scaleZ: away,
    turnY: degrees(Math.asin(sine)),
    turnX: degrees(upright ? Math.atan2(-at(9, ky), at(5, ky)) : Math.atan2(at(6, away), at(10, away))),
    rotation: upright ? 0 : degrees(Math.atan2(-at(1, ky), at(0, kx))),
  };
};

/**
 * A place that looks from one point at another, z along the way between them, with a level horizon but for a roll in degrees. Without a
 * way it looks straight on; straight up or down, x stays x.
 */
export const lookingFrom = ([x, y, z]: Point3, [tx, ty, tz]: Point3, roll: number): Space => {
  const length = Math.hypot(tx - x, ty - y, tz - z);
  const [fx, fy, fz] = length > 1e-9 ? [(tx - x) / length, (ty - y) / length, (tz - z) / length] : [0, 0, 1];
  const level = Math.hypot(fx, fz);
  const [rx, rz] = level > 1e-9 ? [fz / level, -fx / level] : [1, 0];
  // y is square to both: z × x.
  const [ux, uy, uz] = [fy * rz, fz * rx - fx * rz, -fy * rx];
  const [cos, sin] = turn(roll);
  return [
    rx * cos + ux * sin,
    ux * cos - rx * sin,
    fx,
    x,
    uy * sin,
    uy * cos,
    fy,
    y,
    rz * cos + uz * sin,
    uz * cos - rz * sin,
    fz,
    z,
  ];
};

/** From where a scene is looked at: straight on, so that what has no depth shows where it would without. */
export interface Eye {
  /** From the scene's space to one in which the eye looks straight at the middle. */
  readonly to: Space;
  readonly middle: Point;
  /** Of the eye from the plane in which nothing is made larger or smaller; Infinity for none, which has no perspective. */
  readonly distance: number;
}
