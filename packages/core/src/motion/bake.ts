/** Values written as keyframes: as many as it takes to stay within a tolerance at every whole frame. */
import type { Keyframe, Value } from '../document/types';

/**
 * The places in a run of values, one a frame, from which straight lines give all of them within a tolerance; the first
 * and the last among them (Ramer, 1972; Douglas and Peucker, 1973, along time).
 */
export const keptFrames = (values: readonly (readonly number[])[], tolerance: number): number[] => {
  const kept = new Set([0, values.length - 1]);
  const stretches: [number, number][] = [[0, values.length - 1]];
  for (let stretch = stretches.pop(); stretch; stretch = stretches.pop()) {
    const [a, b] = stretch;
    const [va, vb] = [values[a] as readonly number[], values[b] as readonly number[]];
    let worst = tolerance;
    let at = -1;
    for (let i = a + 1; i < b; i++) {
      const share = (i - a) / (b - a);
      (values[i] as readonly number[]).forEach((v, n) => {
        const [p, q] = [va[n] ?? v, vb[n] ?? v];
        const off = Math.abs(v - (p + (q - p) * share));
        if (off > worst) [worst, at] = [off, i];
      });
    }
    if (at < 0) continue;
    kept.add(at);
    stretches.push([a, at], [at, b]);
  }
  return [...kept].sort((a, b) => a - b);
};

/** Linear keyframes of a curve of numbers from one whole frame to another, both included, within a tolerance. */
export const bakedKeys = (at: (frame: number) => number, from: number, to: number, tolerance: number): Keyframe[] => {
  const values = Array.from({ length: to - from + 1 }, (_, i) => [at(from + i)]);
  return keptFrames(values, tolerance).map((i) => ({
    frame: from + i,
    value: values[i]?.[0] as Value,
    ease: { kind: 'linear' },
  }));
};
