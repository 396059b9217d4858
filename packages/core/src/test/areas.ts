/** Areas within outlines, by another way than the core's. */
import type { Outline } from '../geometry/outline';

/**
 * Signed area within an outline: half the integral of x dy − y dx (Green). On a cubic the integrand has
 * degree 5, for which three Gauss points are exact. Holes run the other way and count against it.
 */
const signedArea = ({ points: p }: Outline): number => {
  let sum = 0;
  for (let k = 0; k + 6 < p.length; k += 6) {
    for (const [node, weight] of [
      [0, 8 / 9],
      [Math.sqrt(0.6), 5 / 9],
      [-Math.sqrt(0.6), 5 / 9],
    ] as const) {
      const t = (1 + node) / 2;
      const u = 1 - t;
      const at = (a: number) =>
        u ** 3 * p[k + a]! + 3 * u * u * t * p[k + 2 + a]! + 3 * u * t * t * p[k + 4 + a]! + t ** 3 * p[k + 6 + a]!;
      const speed = (a: number) =>
        3 * u * u * (p[k + 2 + a]! - p[k + a]!) +
        6 * u * t * (p[k + 4 + a]! - p[k + 2 + a]!) +
        3 * t * t * (p[k + 6 + a]! - p[k + 4 + a]!);
      sum += (weight / 4) * (at(0) * speed(1) - at(1) * speed(0));
    }
  }
  return sum;
};
/** The area within outlines. */
export const area = (os: readonly Outline[]): number => Math.abs(os.reduce((sum, o) => sum + signedArea(o), 0));
