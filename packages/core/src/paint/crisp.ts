/** Areas whose edges lie between the pixels of what is drawn on. */
import { IDENTITY, type Matrix, multiply } from '../geometry/matrix';
import { type Outline, polygon, transformed } from '../geometry/outline';
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

/** The outlines of an area, and the way from them to a target that is seen through `view`: brought between its pixels where that is wanted and can be. */
export const areaOn = (
  { outlines, matrix, crisp, feather }: AreaCut,
  view: Matrix = IDENTITY,
): { readonly outlines: readonly Outline[]; readonly matrix: Matrix } => {
  const through = multiply(view, matrix);
  if (!crisp || feather > 0) return { outlines, matrix: through };
  const corners = outlines.map((outline) => cornersOf(transformed(through, outline)));
  const brought = corners.flatMap((all) => (all ? [polygon(all)] : []));
  return brought.length < corners.length ? { outlines, matrix: through } : { outlines: brought, matrix: IDENTITY };
};
