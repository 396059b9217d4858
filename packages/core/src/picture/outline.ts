/** Alpha grown by a disc: the greyscale dilation of mathematical morphology (Serra, Image Analysis, 1982), with a soft rim. */

interface Room {
  readonly forth: Float32Array;
  readonly back: Float32Array;
}

/**
 * The greatest of each `2 half + 1` values about each place of a row from `begin` to `end`, by the two passes of van Herk and Gil
 * and Werman. Outside of the row there is nothing.
 */
const greatest = (
  from: Float32Array,
  to: Float32Array,
  [begin, end]: Span,
  half: number,
  { forth, back }: Room,
): void => {
  const size = 2 * half + 1;
  const padded = end - begin + 2 * half;
  const first = begin - half;
  let last = 0;
  for (let i = 0, n = 0; i < padded; i++, n++) {
    const own = from[first + i] ?? 0;
    if (n === size) n = 0;
    last = n === 0 || own > last ? own : last;
    forth[i] = last;
  }
  for (let i = padded - 1; i >= 0; i--) {
    const own = from[first + i] ?? 0;
    last = i === padded - 1 || (i + 1) % size === 0 || own > last ? own : last;
    back[i] = last;
  }
  for (let i = 0; i < end - begin; i++) {
    const after = forth[i + size - 1]!;
    to[begin + i] = back[i]! > after ? back[i]! : after;
  }
};

/** Places of a row, from the first to the one after the last. */
type Span = readonly [begin: number, end: number];

/** Where a row shows anything; null for nowhere. */
const shownSpan = (row: Float32Array): Span | null => {
  let begin = 0;
  let end = row.length;
  while (begin < end && row[begin] === 0) begin++;
  while (end > begin && row[end - 1] === 0) end--;
  return begin < end ? [begin, end] : null;
};

/** The longest stretch of a row that is opaque. */
const opaqueSpan = (row: Float32Array): Span => {
  let best: Span = [0, 0];
  for (let x = 0, begin = 0; x <= row.length; x++) {
    if (x < row.length && row[x]! >= 1) continue;
    if (x - begin > best[1] - best[0]) best = [begin, x];
    begin = x + 1;
  }
  return best;
};

/** What is left of a span on both sides of what lies in both of two others. */
const outsideOf = ([begin, end]: Span, [a0, a1]: Span, [b0, b1]: Span): readonly Span[] => {
  const [from, to] = [Math.max(a0, b0), Math.min(a1, b1)];
  if (from >= to) return [[begin, end]];
  const sides: readonly Span[] = [
    [begin, Math.min(end, from)],
    [Math.max(begin, to), end],
  ];
  return sides.filter(([b, e]) => b < e);
};

/** Alpha of 0..1 for each pixel, grown by `radius` pixels in all directions; pixels at the rim of the disc count in part. */
export const grownAlpha = (alpha: Float32Array, width: number, height: number, radius: number): Float32Array => {
  const result = alpha.slice();
  if (radius <= 0) return result;
  const whole = new Float32Array(width);
  const reach = Math.ceil(radius);
  const room = { forth: new Float32Array(width + 2 * reach), back: new Float32Array(width + 2 * reach) };
  const rows = Array.from({ length: height }, (_, y) => alpha.subarray(y * width, (y + 1) * width));
  const shown = rows.map(shownSpan);
  // What is opaque already grows no further.
  const opaque = rows.map(opaqueSpan);
  const beyond: Span = [0, width];
  for (const [y, row] of rows.entries()) {
    const span = shown[y];
    if (!span) continue;
    for (let dy = 0; dy <= reach; dy++) {
      // How far the disc goes to each side in this row, and how much of the pixels at its ends it covers.
      const far = Math.sqrt(Math.max(0, (radius + 0.5) ** 2 - dy * dy)) - 0.5;
      if (far < -0.5) continue;
      const half = Math.max(0, Math.floor(far));
      const rim = far < 0 ? far + 1 : far - half;
      const touched: Span = [Math.max(0, span[0] - half - 1), Math.min(width, span[1] + half + 1)];
      for (const side of outsideOf(touched, opaque[y + dy] ?? beyond, opaque[y - dy] ?? beyond)) {
        if (far >= 0) greatest(row, whole, side, half, room);
        else whole.fill(0, ...side);
        for (let x = side[0]; x < side[1]; x++) {
          const ends = far < 0 ? row[x]! : Math.max(row[x - half - 1] ?? 0, row[x + half + 1] ?? 0);
          const value = Math.max(whole[x]!, ends * rim);
          if (value === 0) continue;
          if (y + dy < height && value > result[(y + dy) * width + x]!) result[(y + dy) * width + x] = value;
          if (y >= dy && value > result[(y - dy) * width + x]!) result[(y - dy) * width + x] = value;
        }
      }
    }
  }
  return result;
};
