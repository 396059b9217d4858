/** How often lines may cross, without looking for where they do. */

/** Runs of straight lines, each from corner to corner and back to its first. */
export type Runs = readonly (readonly { readonly x: number; readonly y: number }[])[];

/** Pairs that are looked at for each that may count: a sweep over long level lines looks at many that are far apart. */
const LOOKED_AT = 50;

/**
 * How many pairs of lines have boxes that meet, each box grown by its line's reach: no fewer than cross. Infinity for more than
 * `most`, so that the answer takes time in proportion to that and not to the number of pairs.
 */
export const pairsThatMeet = (
  runs: Runs,
  most: number,
  reachOf: (run: Runs[number], line: number) => number = () => 0,
): number => {
  const count = runs.reduce((sum, run) => sum + run.length, 0);
  if (count > most) return Infinity;
  const left = new Float64Array(count);
  const right = new Float64Array(count);
  const top = new Float64Array(count);
  const bottom = new Float64Array(count);
  let n = 0;
  for (const run of runs) {
    run.forEach((p, i) => {
      const q = run[(i + 1) % run.length] as typeof p;
      const reach = reachOf(run, i);
      left[n] = Math.min(p.x, q.x) - reach;
      right[n] = Math.max(p.x, q.x) + reach;
      top[n] = Math.min(p.y, q.y) - reach;
      bottom[n++] = Math.max(p.y, q.y) + reach;
    });
  }
  const order = Uint32Array.from({ length: count }, (_, i) => i).sort((a, b) => left[a]! - left[b]!);
  let met = 0;
  let looked = 0;
  for (let i = 0; i < count; i++) {
    const a = order[i]!;
    for (let j = i + 1; j < count; j++) {
      const b = order[j]!;
      if (left[b]! > right[a]!) break;
      if (++looked > most * LOOKED_AT) return Infinity;
      if (top[b]! <= bottom[a]! && top[a]! <= bottom[b]! && ++met > most) return Infinity;
    }
  }
  return met;
};
