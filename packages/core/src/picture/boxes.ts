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

/** How many values a box takes before and after each. */
interface Reach {
  readonly before: number;
  readonly after: number;
}

/** The average of the values around each. */
const average = (
  values: Float32Array,
  { from, stride, length }: Line,
  { before, after }: Reach,
  line: Float32Array,
): void => {
  for (let i = 0; i < length; i++) line[i] = values[from + i * stride]!;
  const size = before + after + 1;
  let sum = 0;
  for (let i = 0; i < Math.min(after, length); i++) sum += line[i]!;
  for (let i = 0; i < length; i++) {
    const [last, first] = [i + after, i - before];
    if (last < length) sum += line[last]!;
    values[from + i * stride] = sum / size;
    if (first >= 0) sum -= line[first]!;
  }
};

/** Three averages in a row, of `size` values each. */
const blurLine = (values: Float32Array, at: Line, size: number, line: Float32Array): void => {
  const half = Math.floor(size / 2);
  if (size % 2 === 1) {
    for (let n = 0; n < 3; n++) average(values, at, { before: half, after: half }, line);
    return;
  }
  // Even boxes have no middle: one lies half a pixel before, one behind, and a longer one on it.
  average(values, at, { before: half, after: half - 1 }, line);
  average(values, at, { before: half - 1, after: half }, line);
  average(values, at, { before: half, after: half }, line);
};

/** Of the boxes of a bell curve (Filter Effects Module Level 1, 9.11). */
const sizeOf = (deviation: number): number => Math.floor((deviation * 3 * Math.sqrt(2 * Math.PI)) / 4 + 0.5);

/**
 * The deviation of the bell curve, in pixels, that all wider ones are drawn by. Boxes of 9 pixels stand for those of 4.52 to 5.05 (9.11) and
 * spread by √20: of all that are this narrow they come nearest to what they stand for.
 */
const DRAWN_BY = 4.55;

/**
 * How many times smaller a picture is to be drawn that a bell curve of this deviation goes over: nothing of it is lost by being enlarged
 * again. At its own size boxes of whole pixels would spread by up to a tenth less than they say, each time by another share.
 */
export const shrinkForBlur = (deviation: number): number => Math.max(1, deviation / DRAWN_BY);

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
  const size = sizeOf(deviation);
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
    // Whole levels between both ways, as platforms keep them.
    for (let i = 0; i < count; i++) values[i] = Math.round(values[i]!);
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
