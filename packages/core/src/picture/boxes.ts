/**
 * Gaussian blur for canvases without filters, by three running averages in a row, which come to within a few percent of the
 * bell curve: Filter Effects Module Level 1, 9.11, feGaussianBlur. Platforms do it by the same averages.
 */

/** One row or column of one channel, `stride` apart. */
interface Line {
  readonly from: number;
  readonly stride: number;
  readonly length: number;
}

/** The averages of `size` values each, those from `before` places before each on. */
const average = (
  values: Float32Array,
  { from, stride, length }: Line,
  size: number,
  before: number,
  line: Float32Array,
): void => {
  for (let i = 0; i < length; i++) line[i] = values[from + i * stride]!;
  const after = size - 1 - before;
  let sum = 0;
  for (let i = 0; i < Math.min(after, length); i++) sum += line[i]!;
  for (let i = 0; i < length; i++) {
    if (i + after < length) sum += line[i + after]!;
    values[from + i * stride] = sum / size;
    if (i - before >= 0) sum -= line[i - before]!;
  }
};

/** Three averages in a row, of `size` values each. */
const blurLine = (values: Float32Array, at: Line, size: number, line: Float32Array): void => {
  const half = Math.floor(size / 2);
  if (size % 2 === 1) {
    for (let n = 0; n < 3; n++) average(values, at, size, half, line);
    return;
  }
  // Even boxes have no middle: one lies half a pixel before, one behind, and a longer one on it.
  average(values, at, size, half, line);
  average(values, at, size, half - 1, line);
  average(values, at, size + 1, half, line);
};

export interface BlurWay {
  /** Along rows, and along columns. */
  readonly across?: boolean;
  readonly down?: boolean;
  /** Whether alpha stays, and colours alone are blurred. */
  readonly keeps?: boolean;
}

/**
 * Blurs pixels in place. `data` has red, green, blue and alpha from 0 to 255 for each of `width` × `height` pixels, not
 * multiplied by alpha; outside of them there is nothing. `deviation` is that of the bell curve, in pixels.
 */
export const blurPixels = (
  data: Uint8ClampedArray,
  width: number,
  height: number,
  deviation: number,
  { across = true, down = true, keeps = false }: BlurWay = {},
): void => {
  const size = Math.floor((deviation * 3 * Math.sqrt(2 * Math.PI)) / 4 + 0.5);
  if (size <= 1 || width === 0 || height === 0) return;
  const count = width * height;
  const line = new Float32Array(Math.max(width, height));
  // Colours spread by how much of them there is, so they are blurred multiplied.
  const channels = [0, 1, 2, 3].map((channel) => {
    const values = new Float32Array(count);
    for (let i = 0; i < count; i++) {
      values[i] = channel === 3 ? data[i * 4 + 3]! : (data[i * 4 + channel]! * data[i * 4 + 3]!) / 255;
    }
    if (across)
      for (let y = 0; y < height; y++) blurLine(values, { from: y * width, stride: 1, length: width }, size, line);
    if (down) for (let x = 0; x < width; x++) blurLine(values, { from: x, stride: width, length: height }, size, line);
    return values;
  });
  const alpha = channels[3]!;
  for (let i = 0; i < count; i++) {
    for (let channel = 0; channel < 3; channel++) {
      data[i * 4 + channel] = alpha[i]! > 0 ? (channels[channel]![i]! * 255) / alpha[i]! : 0;
    }
    if (!keeps) data[i * 4 + 3] = alpha[i]!;
  }
};
