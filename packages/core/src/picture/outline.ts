/** Alpha grown by a disc: the greyscale dilation of mathematical morphology (Serra, Image Analysis, 1982), with a soft rim. */

/** The greatest of each `2 half + 1` values about each place of a row, by the two passes of van Herk and Gil and Werman. */
const greatest = (from: Float32Array, to: Float32Array, length: number, half: number, room: Room): void => {
  const size = 2 * half + 1;
  const padded = length + 2 * half;
  const { forth, back } = room;
  // From `half` places before the row to `half` behind it, where there is nothing.
  let last = 0;
  for (let i = 0, n = 0; i < padded; i++, n++) {
    const own = i < half || i >= length + half ? 0 : from[i - half]!;
    if (n === size) n = 0;
    last = n === 0 || own > last ? own : last;
    forth[i] = last;
  }
  for (let i = padded - 1; i >= 0; i--) {
    const own = i < half || i >= length + half ? 0 : from[i - half]!;
    last = i === padded - 1 || (i + 1) % size === 0 || own > last ? own : last;
    back[i] = last;
  }
  for (let i = 0; i < length; i++) {
    const after = forth[i + size - 1]!;
    to[i] = back[i]! > after ? back[i]! : after;
  }
};

interface Room {
  readonly forth: Float32Array;
  readonly back: Float32Array;
}

/** Alpha of 0..1 for each pixel, grown by `radius` pixels in all directions; pixels at the rim of the disc count in part. */
export const grownAlpha = (alpha: Float32Array, width: number, height: number, radius: number): Float32Array => {
  const result = alpha.slice();
  if (radius <= 0) return result;
  const row = new Float32Array(width);
  const whole = new Float32Array(width);
  const reach = Math.ceil(radius);
  const room = { forth: new Float32Array(width + 2 * reach), back: new Float32Array(width + 2 * reach) };
  const rowsThat = (is: (a: number) => boolean) =>
    Array.from({ length: height }, (_, y) => alpha.subarray(y * width, (y + 1) * width).every(is));
  const [empty, full] = [rowsThat((a) => a === 0), rowsThat((a) => a === 1)];
  for (let y = 0; y < height; y++) {
    if (empty[y]) continue;
    row.set(alpha.subarray(y * width, (y + 1) * width));
    for (let dy = 0; dy <= reach; dy++) {
      if ((full[y + dy] ?? true) && (full[y - dy] ?? true)) continue;
      // How far the disc goes to each side in this row, and how much of the pixels at its ends it covers.
      const far = Math.sqrt(Math.max(0, (radius + 0.5) ** 2 - dy * dy)) - 0.5;
      if (far < -0.5) continue;
      const half = Math.max(0, Math.floor(far));
      const rim = far < 0 ? far + 1 : far - half;
      if (far >= 0) greatest(row, whole, width, half, room);
      else whole.fill(0);
      for (let x = 0; x < width; x++) {
        const ends = far < 0 ? row[x]! : Math.max(row[x - half - 1] ?? 0, row[x + half + 1] ?? 0);
        const value = Math.max(whole[x]!, ends * rim);
        if (value === 0) continue;
        if (y + dy < height && value > result[(y + dy) * width + x]!) result[(y + dy) * width + x] = value;
        if (y >= dy && value > result[(y - dy) * width + x]!) result[(y - dy) * width + x] = value;
      }
    }
  }
  return result;
};
