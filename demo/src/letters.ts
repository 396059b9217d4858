/** The wordmark's letters as single strokes, drawn on a 90-pixel cap height; the baseline is y = 0. */
import type { PathValue, Vertex } from '@kite/core/document/types';

const corner = (x: number, y: number): Vertex => [x, y, 0, 0, 0, 0];
const stroke = (...points: readonly (readonly [number, number])[]): PathValue => ({
  closed: false,
  vertices: points.map(([x, y]) => corner(x, y)),
});
const curve = (...vertices: readonly Vertex[]): PathValue => ({ closed: false, vertices });

/** Handle length of a quarter circle of radius 1. */
const K = 0.5523;
const ring = (x: number, y: number, r: number): PathValue => ({
  closed: true,
  vertices: [
    [x + r, y, 0, -r * K, 0, r * K],
    [x, y + r, r * K, 0, -r * K, 0],
    [x - r, y, 0, r * K, 0, -r * K],
    [x, y - r, -r * K, 0, r * K, 0],
  ],
});
/** An arch from a stem at `x` over to the next, `wide` to the right. */
const arch = (x: number, wide: number): PathValue =>
  curve(
    [x, -34, 0, 0, 0, -16],
    [x + wide / 2, -60, -wide / 4, 0, wide / 4, 0],
    [x + wide, -34, 0, -16, 0, 0],
    corner(x + wide, 0),
  );

export interface Letter {
  readonly width: number;
  readonly strokes: readonly PathValue[];
}

export const LETTERS: { readonly [letter: string]: Letter } = {
  N: { width: 58, strokes: [stroke([0, 0], [0, -90], [58, 0], [58, -90])] },
  i: { width: 2, strokes: [stroke([1, -60], [1, 0]), stroke([1, -85], [1, -84])] },
  g: {
    width: 56,
    strokes: [
      ring(28, -30, 28),
      curve(corner(56, -60), [56, 4, 0, 0, 0, 18], [28, 30, 16, 0, -10, 0], [4, 24, 6, 4, 0, 0]),
    ],
  },
  h: { width: 50, strokes: [stroke([0, -92], [0, 0]), arch(0, 50)] },
  t: {
    width: 32,
    strokes: [curve(corner(14, -84), [14, -18, 0, 0, 0, 12], [32, 0, -12, 0, 0, 0]), stroke([0, -58], [32, -58])],
  },
  T: { width: 64, strokes: [stroke([0, -90], [64, -90]), stroke([32, -90], [32, 0])] },
  r: { width: 32, strokes: [stroke([0, -60], [0, 0]), curve([0, -34, 0, 0, 2, -18], [32, -59, -18, -3, 0, 0])] },
  a: { width: 56, strokes: [ring(28, -30, 28), stroke([56, -60], [56, 0])] },
  m: { width: 84, strokes: [stroke([0, -60], [0, 0]), arch(0, 42), arch(42, 42)] },
  ' ': { width: 26, strokes: [] },
};
