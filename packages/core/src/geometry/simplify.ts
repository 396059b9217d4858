/** As few of the points of a line as say the same. */

/** How far a point is from the line through two others, in as many dimensions as they have. */
const distance = (p: readonly number[], a: readonly number[], b: readonly number[]): number => {
  let [along, whole, own] = [0, 0, 0];
  for (let k = 0; k < p.length; k++) {
    const [d, e] = [p[k]! - a[k]!, b[k]! - a[k]!];
    along += d * e;
    whole += e * e;
    own += d * d;
  }
  return Math.sqrt(Math.max(0, whole < 1e-18 ? own : own - (along * along) / whole));
};

/**
 * As few of the points as all lie within a tolerance of the lines between, the first and the last among them (Ramer 1972; Douglas
 * and Peucker 1973). Points may have more than two numbers, all of which are to be met.
 */
export const simplified = <P extends readonly number[]>(points: readonly P[], tolerance: number): P[] => {
  if (points.length < 3) return [...points];
  const kept = new Uint8Array(points.length);
  kept[0] = kept[points.length - 1] = 1;
  const spans: [first: number, last: number][] = [[0, points.length - 1]];
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [first, last] = span;
    let [far, at] = [tolerance, 0];
    for (let i = first + 1; i < last; i++) {
      const d = distance(points[i]!, points[first]!, points[last]!);
      if (d > far) [far, at] = [d, i];
    }
    if (at === 0) continue;
    kept[at] = 1;
    spans.push([first, at], [at, last]);
  }
  return points.filter((_, i) => kept[i] === 1);
};

/** Points of a drawn line that are looked at one by one. */
const MOST_DRAWN = 8_000;

/** As few points as `simplified` leaves, and no more than there may be: of a line without end every so manieth will do. */
export const simplifiedTo = <P extends readonly number[]>(
  points: readonly P[],
  tolerance: number,
  most: number,
): P[] => {
  const every = Math.ceil(points.length / MOST_DRAWN);
  const some = points.filter((_, i) => i % every === 0 || i === points.length - 1);
  let kept = simplified(some, tolerance);
  for (let rough = tolerance * 4; kept.length > most; rough *= 4) kept = simplified(kept, rough);
  return kept;
};
