/** What something that grows has come to, drawn: its way through a picture is found once, in the picture's own pixels. */
import { remembered } from '../document/remembered';
import { type Box, grown as grownBox } from '../geometry/bounds';
import { type Matrix, multiply } from '../geometry/matrix';
import { type ComingParts, grown, type Grown, grownTo, marginFor } from '../picture/growth';
import type { AlphaGrid } from '../picture/growthWays';
import { wholePixels } from '../picture/pixels';
import { boxOfMarks, eachMark } from '../recipe/marks';
import type { Growth, GrowthCut } from '../recipe/types';
import { pixelsRead } from './change';
import type { SurfacePool } from './surface';
import { type DrawMarks, type Target, targetOf, type Tools } from './target';

/** Cells for a picture, at the most, and at the least. */
const CELLS = { full: [250_000, 1_000_000], small: [10_000, 10_000] } as const;

/** A growth through a picture, and where its cells are. */
interface Field {
  readonly grown: Grown;
  /** From its cells to the picture's pixels. */
  readonly matrix: Matrix;
  /** Cells in one of those pixels. */
  readonly scale: number;
  /** What it is written into, once it is drawn, and what of it was written last. */
  pixels?: { readonly data: Uint8ClampedArray };
  coming?: ComingParts;
}

/** A growth that was found, and what it was found in. */
interface Found {
  readonly growth: Growth;
  readonly alpha: Uint8Array;
  readonly field: Field;
}
/** The last of them: marks that are made anew from frame to frame often draw the same. */
const MOST_FOUND = 4;

/** What was found for the surfaces of one pool, gone with them: by growths, and the last few of all. */
const knownOf = remembered<SurfacePool, { fields: WeakMap<Growth, Field>; last: Found[] }>(() => ({
  fields: new WeakMap(),
  last: [],
}));

const isSame = (a: Uint8Array, b: Uint8Array): boolean => {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
};

/** Cells in a pixel for a picture of this size. */
const scaleFor = ({ left, top, right, bottom }: Box, small: boolean): number => {
  const area = Math.max(1e-6, (right - left) * (bottom - top));
  const [least, most] = small ? CELLS.small : CELLS.full;
  return Math.min(Math.sqrt(most / area), Math.max(1, Math.sqrt(least / area)));
};

/** How opaque what it grows through is; null where there is nothing, or a page may not look at it. */
const alphaOf = ({ through, gap }: Growth, tools: Tools, drawMarks: DrawMarks) => {
  const box = boxOfMarks(through);
  if (!box || ![box.left, box.top, box.right, box.bottom].every(Number.isFinite)) return null;
  const scale = scaleFor(box, tools.pool.small);
  const margin = marginFor(gap * scale);
  const { left, top, right, bottom } = grownBox(box, margin / scale);
  const [width, height] = [Math.ceil((right - left) * scale), Math.ceil((bottom - top) * scale)];
  const surface = tools.pool.take(width, height);
  const view: Matrix = [scale, 0, 0, scale, -left * scale, -top * scale];
  drawMarks(targetOf(surface, width, height, view, tools), through);
  const pixels = pixelsRead(surface.context, width, height);
  tools.pool.give(surface);
  if (!pixels) return null;
  const alpha = Uint8Array.from({ length: width * height }, (_, i) => pixels.data[i * 4 + 3]!);
  const grid: AlphaGrid = { width, height, alpha, scale, place: ([x, y]) => [(x - left) * scale, (y - top) * scale] };
  return { grid, matrix: [1 / scale, 0, 0, 1 / scale, left, top] as Matrix };
};

const isLike = (a: Growth, b: Growth): boolean =>
  a.value === b.value && a.gap === b.gap && a.tip === b.tip && a.backwards === b.backwards;

const fieldOf = (growth: Growth, tools: Tools, drawMarks: DrawMarks): Field | null => {
  const { fields, last } = knownOf(tools.pool);
  const known = fields.get(growth);
  if (known) return known;
  const drawn = alphaOf(growth, tools, drawMarks);
  if (!drawn) return null;
  const { grid, matrix } = drawn;
  const { alpha, scale } = grid;
  const before = last.find((one) => isLike(one.growth, growth) && isSame(one.alpha, alpha));
  const inCells = { ...growth, gap: growth.gap * scale, tip: growth.tip * scale };
  const field: Field = { grown: before?.field.grown ?? grown(grid, inCells), matrix, scale };
  if (!before) last.unshift({ growth, alpha, field });
  last.length = Math.min(last.length, MOST_FOUND);
  // A picture that has not come yet is asked for again.
  let whole = true;
  eachMark(growth.through, (mark) => {
    if (mark.op === 'picture' && !tools.pictures.get(mark.asset, mark.cut)) whole = false;
  });
  if (whole) fields.set(growth, field);
  return field;
};

/** Draws, opaque where it has come, what a growth shows: over a cleared target. */
export const drawGrowth = (target: Target, cut: GrowthCut, drawMarks: DrawMarks): void => {
  const { context, view, tools, clip } = target;
  const field = fieldOf(cut.growth, tools, drawMarks);
  if (!field) {
    // Where nothing can be known of it, all shows.
    Object.assign(context, { globalAlpha: 1, globalCompositeOperation: 'source-over', fillStyle: '#000' });
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.fillRect(0, 0, clip.right, clip.bottom);
    return;
  }
  const { width, height } = field.grown;
  const surface = tools.pool.take(width, height);
  const pixels = (field.pixels ??= surface.context.createImageData(width, height));
  const soft = Math.max(1, cut.soft * field.scale);
  field.coming = grownTo(field.grown, cut.shown, soft, wholePixels(pixels.data), field.coming);
  surface.context.putImageData(pixels, 0, 0);
  context.setTransform(...multiply(view, multiply(cut.matrix, field.matrix)));
  Object.assign(context, { globalAlpha: 1, globalCompositeOperation: 'source-over' });
  context.imageSmoothingQuality = 'low';
  context.drawImage(surface.image, 0, 0, width, height, 0, 0, width, height);
  tools.pool.give(surface);
};
