/**
 * Gaussian blur for canvases without filters, by three running averages in a row, which come to within a few percent of the
 * bell curve: Filter Effects Module Level 1, 9.11, feGaussianBlur. Platforms do it by the same averages. Of a picture that is drawn smaller
 * boxes that stand for theirs need not be of whole pixels: their ends count in part (Gwosdek and others, Theoretical Foundations of Gaussian
 * Convolution by Extended Box Filtering, 2011).
 */

/** One row or column of one channel, `stride` apart. */
interface Line {
  readonly from: number;
  readonly stride: number;
  readonly length: number;
}

/** How many values a box takes before and after each, and the share of one more that it takes at both ends. */
interface Reach {
  readonly before: number;
  readonly after: number;
  readonly share?: number;
}

/** The average of the values around each. */
const average = (
  values: Float32Array,
  { from, stride, length }: Line,
  { before, after, share = 0 }: Reach,
  line: Float32Array,
): void => {
  for (let i = 0; i < length; i++) line[i] = values[from + i * stride]!;
  const size = before + after + 1 + 2 * share;
  let sum = 0;
  for (let i = 0; i < Math.min(after, length); i++) sum += line[i]!;
  for (let i = 0; i < length; i++) {
    const [last, first] = [i + after, i - before];
    if (last < length) sum += line[last]!;
    let whole = sum;
    if (share > 0) whole += share * ((last + 1 < length ? line[last + 1]! : 0) + (first > 0 ? line[first - 1]! : 0));
    values[from + i * stride] = whole / size;
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

/** Three averages in a row, which together spread what they go over by so much. */
const spreadLine = (values: Float32Array, at: Line, variance: number, line: Float32Array): void => {
  const own = variance / 3;
  // The largest box of whole pixels within it, and so much of the ends.
  const reach = Math.floor((Math.sqrt(12 * own + 1) - 1) / 2);
  const whole = (reach * (reach + 1) * (2 * reach + 1)) / 3;
  const share = (own * (2 * reach + 1) - whole) / (2 * ((reach + 1) ** 2 - own));
  for (let n = 0; n < 3; n++) average(values, at, { before: reach, after: reach, share }, line);
};

/** Of the boxes of a bell curve (Filter Effects Module Level 1, 9.11). */
const sizeOf = (deviation: number): number => Math.floor((deviation * 3 * Math.sqrt(2 * Math.PI)) / 4 + 0.5);

/** How far boxes of a size spread what they go over, together. */
const varianceOf = (size: number): number => (3 * (size * size - 1) + (size % 2 === 1 ? 0 : 2 * size + 1)) / 12;

/** Of this deviation, in pixels, a bell curve loses nothing that is seen: of filters, whose boxes are of whole pixels, a larger one. */
const LEAST = { filter: 8, kernel: 4 } as const;

/** How many times smaller a picture may be drawn that a bell curve goes over. */
export const shrinkForBlur = (deviation: number, by: keyof typeof LEAST): number =>
  deviation > 0 ? 2 ** Math.max(0, Math.floor(Math.log2(deviation / LEAST[by]))) : 1;

export interface BlurWay {
  /** Along rows, and along columns. */
  readonly across?: boolean;
  readonly down?: boolean;
  /** Whether alpha stays, and colours alone are blurred. */
  readonly keeps?: boolean;
}

/**
 * Blurs pixels in place. `data` has red, green, blue and alpha from 0 to 255 for each of `width` × `height` pixels, not
 * multiplied by alpha; outside of them there is nothing. `deviation` is that of the bell curve, in pixels. A picture that is drawn `shrink`
 * times smaller is blurred as much as a filter would do it, which draws it smaller too.
 */
export const blurPixels = (
  data: Uint8ClampedArray,
  width: number,
  height: number,
  deviation: number,
  { across = true, down = true, keeps = false }: BlurWay = {},
  shrink = 1,
): void => {
  const size = sizeOf(deviation);
  if (size <= 1 || width === 0 || height === 0) return;
  const smaller = shrinkForBlur(deviation * shrink, 'filter');
  const variance = varianceOf(sizeOf((deviation * shrink) / smaller)) * (smaller / shrink) ** 2;
  const blur = (values: Float32Array, at: Line) =>
    shrink === 1 ? blurLine(values, at, size, line) : spreadLine(values, at, variance, line);
  const count = width * height;
  const line = new Float32Array(Math.max(width, height));
  // Colours spread by how much of them there is, so they are blurred multiplied.
  const channels = [0, 1, 2, 3].map((channel) => {
    const values = new Float32Array(count);
    for (let i = 0; i < count; i++) {
      values[i] = channel === 3 ? data[i * 4 + 3]! : (data[i * 4 + channel]! * data[i * 4 + 3]!) / 255;
    }
    if (across) for (let y = 0; y < height; y++) blur(values, { from: y * width, stride: 1, length: width });
    if (down) for (let x = 0; x < width; x++) blur(values, { from: x, stride: width, length: height });
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
