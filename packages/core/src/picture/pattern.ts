/** Patterns: stripes, dots, rays and static, worked out pixel by pixel wherever they are turned. */
import type { Point } from '../document/types';
import { hashed } from '../document/random';
import type { Pixels } from './mapped';
import { inShade, type Placed, type Shades, wholePixels } from './pixels';

export type PatternForm = 'stripes' | 'dots' | 'rays' | 'static';

export interface Pattern {
  readonly form: PatternForm;
  /** From one stripe or dot to the next, and the side of a square of static; in its own pixels. */
  readonly size: number;
  /** Of rays, in a full turn. */
  readonly count: number;
  /** How much of a period is covered, 0..1. */
  readonly share: number;
  /** How much of a period an edge fades over, 0..1. */
  readonly soft: number;
  /** Of the pattern itself, in radians. */
  readonly angle: number;
  /** Its middle, in its own pixels. */
  readonly middle: Point;
  /** Periods by which it has moved on; whole ones bring the same picture again. */
  readonly phase: number;
  readonly seed: number;
}

/** How far a place in periods is from the middle of the nearest one, 0 to 1 at its border. */
const offMiddle = (u: number): number => Math.abs(u - Math.floor(u) - 0.5) * 2;

/**
 * How strongly it covers a place, 0 to 1: `d` is how far from the middle of what covers, 1 at the border of a period, and an edge is no
 * sharper than `pixel`, a pixel in the same measure.
 */
const covered = (d: number, share: number, soft: number, pixel: number): number => {
  if (share <= 0) return 0;
  const width = Math.max(soft, pixel, 1e-6);
  return Math.min(1, Math.max(0, (share - d) / width + 0.5));
};

type At = (x: number, y: number) => number;
/** What covers a place in its own pixels, turned and moved already; `unit` of them make one pixel. */
const FORMS: { readonly [F in PatternForm]: (of: Pattern, unit: number) => At } = {
  stripes: ({ size, share, soft, phase }, unit) => {
    const pixel = (2 * unit) / size;
    // Where all is covered there are no edges.
    if (share >= 1) return () => 1;
    return (x) => covered(offMiddle(x / size + 0.5 - phase), share, soft, pixel);
  },
  dots: ({ size, share, soft, phase }, unit) => {
    const pixel = (2 * unit) / size;
    return (x, y) =>
      covered(Math.hypot(offMiddle(x / size + 0.5 - phase), offMiddle(y / size + 0.5)), share, soft, pixel);
  },
  rays:
    ({ count, share, soft, phase }, unit) =>
    (x, y) => {
      const away = Math.hypot(x, y);
      // Near the middle a ray is narrower than a pixel.
      const pixel = away > 0 ? (unit * count) / (Math.PI * away) : Infinity;
      if (pixel > 2) return share;
      return covered(offMiddle((Math.atan2(y, x) / (2 * Math.PI)) * count - phase), share, soft, pixel);
    },
  static: ({ size, seed, phase }) => {
    const now = hashed(seed * 8_191 + Math.floor(phase));
    return (x, y) =>
      (hashed(Math.floor(x / size) * 0x165667b1 + hashed(Math.floor(y / size) * 0x27d4eb2f + now)) & 1023) / 1023;
  },
};

/** Fills what is there with a pattern in colours, from where it does not cover to where it does, as opaque as it is and they are. */
export const patterned = ({ width, height, data }: Pixels, pattern: Pattern, shades: Shades, placed: Placed): void => {
  const { scale, origin, turn } = placed;
  const pixels = wholePixels(data);
  const at = FORMS[pattern.form](pattern, 1 / scale);
  const angle = turn + pattern.angle;
  const [c, s] = [Math.cos(angle) / scale, Math.sin(angle) / scale];
  // Its middle is moved with the layer, and turned about by the pattern.
  const [mc, ms] = [Math.cos(pattern.angle), Math.sin(pattern.angle)];
  const [mx, my] = pattern.middle;
  const [left, top] = [mx * mc + my * ms, my * mc - mx * ms];
  for (let y = 0; y < height; y++) {
    const dy = y + 0.5 - origin[1];
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const pixel = pixels[i]!;
      if (pixel >>> 24 === 0) continue;
      const dx = x + 0.5 - origin[0];
      pixels[i] = inShade(pixel, shades[(at(dx * c + dy * s - left, dy * c - dx * s - top) * 255 + 0.5) | 0]!);
    }
  }
};
