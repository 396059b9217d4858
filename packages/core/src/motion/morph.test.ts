import { expect, it } from 'vitest';
import type { PathValue } from '../document/types';
import { arcLength } from '../geometry/length';
import { type Outline, outlineOfPath } from '../geometry/outline';
import { mixPaths, withVertices } from './morph';

const K = 0.5522847498;
const circle: PathValue = {
  closed: true,
  vertices: [
    [1, 0, 0, -K, 0, K],
    [0, 1, K, 0, -K, 0],
    [-1, 0, 0, K, 0, -K],
    [0, -1, -K, 0, K, 0],
  ],
};
const length = (path: PathValue) => arcLength(outlineOfPath(path) as Outline);

it('more vertices do not change the outline', () => {
  const more = withVertices(circle, 11);
  expect(more.vertices).toHaveLength(11);
  expect(length(more)).toBeCloseTo(length(circle), 9);
});

it('outlines of unequal counts meet in between, and at their ends keep their shape', () => {
  const triangle: PathValue = {
    closed: true,
    vertices: [
      [2, 0, 0, 0, 0, 0],
      [-1, 2, 0, 0, 0, 0],
      [-1, -2, 0, 0, 0, 0],
    ],
  };
  expect(mixPaths(triangle, circle, 0.5).vertices).toHaveLength(4);
  expect(length(mixPaths(triangle, circle, 0))).toBeCloseTo(length(triangle), 9);
  expect(length(mixPaths(triangle, circle, 1))).toBeCloseTo(length(circle), 9);
});
