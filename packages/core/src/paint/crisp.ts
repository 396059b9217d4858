/** Areas whose edges lie between the pixels of what is drawn on. */
import { IDENTITY, type Matrix, multiply } from '../geometry/matrix';
import { widened } from '../geometry/convex';
import { isLine, type Outline, polygon, transformed, turnOf } from '../geometry/outline';
import type { Point } from '../document/types';
import type { AreaCut } from '../recipe/types';

/** Nearer than this, in pixels, two places are one. */
const SAME = 1e-6;

/** Half a pixel is rounded the same way wherever it was come by. */
const whole = (v: number): number => Math.round(Math.round(v / SAME) * SAME);

/** The corners of an outline all of whose edges stand along the pixels, brought between these; null where one does not. */
const cornersOf = ({ points: p }: Outline): readonly Point[] | null => {
  const corners: Point[] = [];
  for (let i = 0; i + 7 < p.length; i += 6) {
    const along = [0, 1].some((axis) =>
      [2, 4, 6].every((k) => Math.abs(p[i + k + axis]! - p[i + axis]!) < SAME * (1 + Math.abs(p[i + axis]!))),
    );
    if (!along) return null;
    corners.push([whole(p[i]!), whole(p[i + 1]!)]);
  }
  return corners;
};

/** The corners of an outline with straight sides and no dents; null for any other. */
const convexCorners = (outline: Outline): readonly Point[] | null => {
  const { points: p } = outline;
  const count = (p.length - 2) / 6;
  if (turnOf(outline) === 0) return null;
  for (let i = 0; i < count; i++) if (!isLine(p, i)) return null;
  return Array.from({ length: count }, (_, i): Point => [p[6 * i]!, p[6 * i + 1]!]);
};

/**
 * By so many pixels what stands aslant is widened to each side, as far as a pixel's corner lies from its middle: where two areas meet, each
 * covers whole what the other covers in part. Of what is opaque nothing shows through there; edges that nothing meets lie that much further.
 */
const LAP = 0.75;

const onTarget = (outline: Outline): Outline | null => {
  const corners = cornersOf(outline);
  if (corners) return polygon(corners);
  const aslant = convexCorners(outline);
  return aslant && polygon(widened(aslant, LAP));
};

/** The outlines of an area, and the way from them to a target that is seen through `view`: brought between its pixels where that is wanted and can be. */
export const areaOn = (
  { outlines, matrix, crisp, feather, mode, inverted }: AreaCut,
  view: Matrix = IDENTITY,
): { readonly outlines: readonly Outline[]; readonly matrix: Matrix } => {
  const through = multiply(view, matrix);
  if (!crisp || feather > 0) return { outlines, matrix: through };
  const seen = outlines.map((outline) => transformed(through, outline));
  const shows = (mode === 'add' || mode === 'show') && !inverted;
  const brought = seen.flatMap((outline) => {
    const own = onTarget(outline);
    return own && (shows || cornersOf(outline)) ? [own] : [];
  });
  return brought.length < outlines.length ? { outlines, matrix: through } : { outlines: brought, matrix: IDENTITY };
};
