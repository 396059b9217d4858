/** Values written as keyframes: as many as it takes to stay within a tolerance at every whole frame. */
import type { Keyframe, Value } from '../document/types';

/**
 * Linear keyframes of a curve of numbers from one whole frame to another, both included. Between them no value at a
 * whole frame is off by more than `tolerance` (Ramer, 1972; Douglas and Peucker, 1973, along time).
 */
export const bakedKeys = (at: (frame: number) => number, from: number, to: number, tolerance: number): Keyframe[] => {
  const values = Array.from({ length: to - from + 1 }, (_, i) => at(from + i));
  const kept = new Set([0, values.length - 1]);
  const stretches: [number, number][] = [[0, values.length - 1]];
  for (let stretch = stretches.pop(); stretch; stretch = stretches.pop()) {
    const [a, b] = stretch;
    const [va, vb] = [values[a] as number, values[b] as number];
    let worst = tolerance;
    let at = -1;
    for (let i = a + 1; i < b; i++) {
      const off = Math.abs((values[i] as number) - (va + ((vb - va) * (i - a)) / (b - a)));
      if (off > worst) [worst, at] = [off, i];
    }
    if (at < 0) continue;
    kept.add(at);
    stretches.push([a, at], [at, b]);
  }
  return [...kept]
    .sort((a, b) => a - b)
    .map((i) => ({ frame: from + i, value: values[i] as Value, ease: { kind: 'linear' } }));
};
