import { describe, expect, it } from 'vitest';
import type { PathValue, Vertex } from '../document/types';
import { arcLength } from '../geometry/length';
import { outlineOfPath } from '../geometry/outline';
import {
  isSmooth,
  movedVertices,
  nearestOnPath,
  pathOfOutline,
  reversedPath,
  startingAt,
  withHandle,
  withInserted,
  withoutVertices,
  withVertexKind,
} from './paths';

const corner = (x: number, y: number): Vertex => [x, y, 0, 0, 0, 0];
const square: PathValue = { closed: true, vertices: [corner(0, 0), corner(100, 0), corner(100, 100), corner(0, 100)] };
const wave: PathValue = {
  closed: false,
  vertices: [
    [0, 0, 0, 0, 30, -40],
    [100, 0, -30, 40, 30, -40],
    [200, 50, -20, 10, 0, 0],
  ],
};
const length = (path: PathValue) => arcLength(outlineOfPath(path)!);
const place = (v: Vertex | undefined) => v && [v[0], v[1]];

describe('a vertex put in', () => {
  it.each([
    ['a straight side', square, 1, 0.25],
    ['a curve', wave, 0, 0.6],
    ['the way back of a closed path', square, 3, 0.5],
  ] as const)('on %s leaves the outline as it is', (_name, path, span, t) => {
    const next = withInserted(path, span, t);
    expect(next.vertices).toHaveLength(path.vertices.length + 1);
    expect(length(next)).toBeCloseTo(length(path), 6);
  });
  it('stands at its place, a straight side staying one', () => {
    expect(withInserted(square, 1, 0.25).vertices[2]).toEqual([100, 25, 0, 0, 0, 0]);
    expect(isSmooth(withInserted(wave, 0, 0.6).vertices[1]!)).toBe(true);
  });
});

describe('vertices', () => {
  it('taken out leave the others as they are', () => {
    expect(withoutVertices(square, new Set([1])).vertices.map(place)).toEqual([
      [0, 0],
      [100, 100],
      [0, 100],
    ]);
  });
  it('move together, with their handles', () => {
    const moved = movedVertices(wave, new Set([0, 2]), [5, 7]);
    expect(moved.vertices.map((v) => v.slice(0, 2))).toEqual([
      [5, 7],
      [100, 0],
      [205, 57],
    ]);
    expect(moved.vertices[0]!.slice(2)).toEqual([0, 0, 30, -40]);
  });
  it('made smooth have handles on one line, made corners none', () => {
    const smooth = withVertexKind(square, new Set([1]), 'smooth');
    expect(isSmooth(smooth.vertices[1]!)).toBe(true);
    expect(withVertexKind(smooth, new Set([1]), 'corner')).toEqual(square);
  });
});

describe('a handle', () => {
  it('turns the other along, which keeps its length', () => {
    const v = withHandle(wave, 1, 'out', [50, 0], 'turns').vertices[1]!;
    expect(v.slice(4)).toEqual([50, 0]);
    expect([v[2], v[3]]).toEqual([expect.closeTo(-50, 9), expect.closeTo(0, 9)]);
  });
  it('broken from the other leaves it', () => {
    expect(withHandle(wave, 1, 'out', [50, 0], 'stays').vertices[1]!.slice(2, 4)).toEqual([-30, 40]);
  });
  it('mirrored takes the other to its own length', () => {
    const v = withHandle(wave, 1, 'in', [-10, 0], 'mirrors').vertices[1]!;
    expect([v[4], v[5]]).toEqual([expect.closeTo(10, 9), expect.closeTo(0, 9)]);
  });
});

it('the first vertex is chosen without changing the outline', () => {
  const next = startingAt(square, 2);
  expect(place(next.vertices[0])).toEqual([100, 100]);
  expect(length(next)).toBe(length(square));
  expect(startingAt(wave, 1)).toBe(wave);
});

it('reversing keeps a closed path’s first vertex, and done twice changes nothing', () => {
  expect(place(reversedPath(square).vertices[0])).toEqual([0, 0]);
  expect(place(reversedPath(square).vertices[1])).toEqual([0, 100]);
  expect(reversedPath(reversedPath(square))).toEqual(square);
  expect(reversedPath(reversedPath(wave))).toEqual(wave);
});

it('the nearest place on a path is found on the right span', () => {
  const near = nearestOnPath(square, [104, 30])!;
  expect([near.span, near.t, near.distance]).toEqual([1, expect.closeTo(0.3, 5), expect.closeTo(4, 5)]);
});

it('an outline becomes the path it came from', () => {
  expect(pathOfOutline(outlineOfPath(square)!)).toEqual(square);
  expect(pathOfOutline(outlineOfPath(wave)!)).toEqual(wave);
});
