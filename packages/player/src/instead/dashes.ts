/** Stands in for `recipe/paints/dashes` where dashes are as long as they are, and fitted to nothing. */
import type { byDashes as whole } from '@kite/core/recipe/paints/dashes';

export const byDashes: typeof whole = (outlines, dashes) => [
  { dashes: dashes.some((d) => d > 0) ? dashes : [], outlines },
];
