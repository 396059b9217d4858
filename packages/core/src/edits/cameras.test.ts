/** Cameras that look at a point of their own. */
import { describe, expect, it } from 'vitest';
import { newController, newDrawing, newItem, newProject, newScene, stillAll } from '../document/make';
import type { Layer, Point, Project, Value } from '../document/types';
import { applySpace, lookingFrom } from '../geometry/space';
import { applyThrough } from '../geometry/through';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { aimCamera } from './cameras';
import { setParent } from './place';
import { done } from '../test/formulas';

const EMPTY = newScene('s', 'Camera', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 10,
  background: null,
});
const HOW = { write: 'curve', frame: 0 } as const;
const docOf = (camera: { readonly [key: string]: Value }): Project => {
  const items = [newItem('r', 'rectangle', { width: 40, height: 20 }), newItem('f', 'fill')];
  const layers: Layer[] = [
    {
      ...newDrawing(EMPTY, 'a', 'Sign', items),
      params: stillAll({ depth: true, position: [180, 160], z: 40, turnY: 30 }),
    },
    { ...newController(EMPTY, 'c', 'Camera'), params: stillAll({ depth: true, camera: true, ...camera }) },
    {
      ...newController(EMPTY, 'g', 'Rig'),
      params: stillAll({ depth: true, position: [90, 40], z: 20, turnX: 30, rotation: 20 }),
    },
  ];
  const scene = { ...EMPTY, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) };
  return newProject('p', 'P', [scene]);
};
const programOf = (doc: Project) => compileScene(doc.scenes.s!, NO_LIBRARY);
const seenIn = (doc: Project) =>
  [
    [-20, -10],
    [20, -10],
    [20, 10],
  ].map((corner) => applyThrough(programOf(doc).throughAt('a', 0), corner as unknown as Point));
const near = (one: readonly Point[], other: readonly Point[]) =>
  one.forEach(([x, y], i) => expect(Math.hypot(x - other[i]![0], y - other[i]![1])).toBeLessThan(0.02));

describe('a place that looks from one point at another', () => {
  it('has it straight ahead, keeps lengths and angles, and its horizon level', () => {
    const [from, at] = [
      [10, 20, 30],
      [40, -50, 90],
    ] as const;
    const space = lookingFrom(from, at, 0);
    const away = Math.hypot(30, 70, 60);
    applySpace(space, [0, 0, away]).forEach((v, i) => expect(v).toBeCloseTo(at[i] as number, 9));
    for (const roll of [0, 35, -120]) {
      const rolled = lookingFrom(from, at, roll);
      const columns = [0, 1, 2].map((c) => [rolled[c]!, rolled[c + 4]!, rolled[c + 8]!] as const);
      columns.forEach((a, i) =>
        columns.forEach((b, j) => expect(a.reduce((sum, v, k) => sum + v * b[k]!, 0)).toBeCloseTo(i === j ? 1 : 0, 9)),
      );
    }
    // Its own x stays level.
    expect(space[4]).toBeCloseTo(0, 12);
  });
  it.each([
    ['straight on where there is no way', [5, 5, 5], [5, 5, 5], [0, 0, 1]],
    ['straight down', [0, 0, 0], [0, 9, 0], [0, 1, 0]],
  ] as const)('looks %s', (_name, from, at, ahead) => {
    const space = lookingFrom(from, at, 0);
    expect([space[2], space[6], space[10]]).toEqual(ahead);
    expect(space.every(Number.isFinite)).toBe(true);
  });
});

describe('a camera that aims', () => {
  it.each([
    ['straight on', { position: [200, 150], angle: 40 }],
    ['from aside', { position: [170, 180], z: 30, turnX: -20, turnY: 50, rotation: 12, angle: 55 }],
    ['without perspective', { position: [170, 180], turnY: 50, angle: 0 }],
  ] as const)('shows the same when it begins to, and when it no longer does: %s', (_name, camera) => {
    const doc = docOf(camera);
    const aimed = done(doc, aimCamera(programOf(doc), 'c', true, HOW));
    near(seenIn(aimed), seenIn(doc));
    near(seenIn(done(aimed, aimCamera(programOf(aimed), 'c', false, HOW))), seenIn(doc));
  });
  it('has its target in the middle of the picture, wherever it stands', () => {
    const doc = docOf({ position: [20, -300], z: -500, aims: true, target: [180, 160], targetZ: 40, rotation: 77 });
    const [x, y] = applyThrough(programOf(doc).throughAt('a', 0), [0, 0]);
    expect([x, y]).toEqual([expect.closeTo(200, 9), expect.closeTo(150, 9)]);
  });
  it('hung from another looks at what it looked at', () => {
    const doc = docOf({ position: [20, -300], z: -500, aims: true, target: [180, 160], targetZ: 40 });
    const [x, y] = applyThrough(programOf(done(doc, setParent('s', ['c'], 'g', 0))).throughAt('a', 0), [0, 0]);
    expect(Math.hypot(x - 200, y - 150)).toBeLessThan(0.02);
  });
});
