/** A scene in depth from aside. */
import { describe, expect, it } from 'vitest';
import { newController, newDrawing, newItem, newScene, stillAll } from '../document/make';
import type { Layer, Value } from '../document/types';
import { applySpace, type Point3, translationAway } from '../geometry/space';
import { boxOfMarks } from '../recipe/marks';
import { ASIDES, directionAside, eyeAside, planesInSpace, seenAside, sightOf } from './aside';
import { compileScene } from './compile';
import { NO_LIBRARY } from './program';
import { eyeOf } from './eye';

const BLANK = newScene('s', 'Aside', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 10,
  background: null,
});
const MIDDLE: Point3 = [200, 150, 0];
const plate = (id: string, values: { readonly [key: string]: Value }): Layer => ({
  ...newDrawing(BLANK, id, id, [newItem(`${id}r`, 'rectangle', { width: 40, height: 20 }), newItem(`${id}f`, 'fill')]),
  params: stillAll(values),
});
const programOf = (...layers: readonly Layer[]) =>
  compileScene(
    { ...BLANK, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) },
    NO_LIBRARY,
  );
const near = (one: readonly number[], other: readonly number[]) => {
  expect(one).toHaveLength(other.length);
  one.forEach((v, i) => expect(v).toBeCloseTo(other[i] as number, 9));
};

describe('looked at from aside', () => {
  it.each([
    ['top', [230, 110]],
    ['left', [160, 170]],
    ['front', [230, 170]],
  ] as const)('from the %s a place is where a drawing has it', (from, seen) => {
    // 30 to the right of the middle, 20 below it, 40 away.
    const at: Point3 = [MIDDLE[0] + 30, MIDDLE[1] + 20, 40];
    near(seenAside(eyeAside(BLANK, ASIDES[from]), at), seen);
  });
  it('turned freely, up stays up and the middle where it is', () => {
    const eye = eyeAside(BLANK, { turn: 40, tilt: -25 });
    near(seenAside(eye, MIDDLE), [200, 150]);
    const [x] = seenAside(eye, [200, 50, 0]);
    expect(x).toBeCloseTo(200, 9);
  });
  it('a way on its screen is one in the pixels of any place', () => {
    for (const look of [ASIDES.top, ASIDES.left, { turn: 70, tilt: 33 }]) {
      const eye = eyeAside(BLANK, look);
      const { spaceAt } = programOf({
        ...newController(BLANK, 'c', 'About'),
        params: stillAll({ depth: true, position: [90, 10], z: 70, turnX: 20, turnY: 130, scale: [2, 0.5], scaleZ: 3 }),
      });
      const place = spaceAt('c', 0);
      const along = directionAside(eye, place, [12, -7]) as Point3;
      const [from, to] = [applySpace(place, [0, 0, 0]), applySpace(place, along)].map((at) => seenAside(eye, at));
      near([to![0] - from![0], to![1] - from![1]], [12, -7]);
    }
    expect(
      directionAside(eyeAside(BLANK, ASIDES.top), translationAway(5).map((v, i) => (i === 0 ? 0 : v)) as never, [1, 1]),
    ).toBeNull();
  });
  it('straight on it shows what the scene’s own eye shows without perspective, of what is in depth alone', () => {
    const deep = plate('a', { position: [220, 140], depth: true, z: 90, turnY: 60 });
    const { seenBy } = programOf(deep, plate('b', { position: [50, 50] }));
    const box = boxOfMarks(seenBy(eyeAside(BLANK, ASIDES.front), 0));
    near([box!.left, box!.right, box!.top, box!.bottom], [210, 230, 130, 150]);
    near(
      Object.values(boxOfMarks(seenBy(eyeOf({ ...BLANK, eye: { ...BLANK.eye, angle: 0 } }), 0))!),
      Object.values(box!),
    );
  });
  it('tells the planes that a layer has, or the place where one stands that draws nothing', () => {
    const program = programOf(plate('a', { position: [220, 140], depth: true, z: 90 }), {
      ...newController(BLANK, 'c', 'About'),
      params: stillAll({ depth: true, position: [90, 10], z: 70 }),
    });
    expect(planesInSpace(program, 'a', 0)).toEqual([
      [
        [200, 130, 90],
        [240, 130, 90],
        [240, 150, 90],
        [200, 150, 90],
      ],
    ]);
    expect(planesInSpace(program, 'c', 0)).toEqual([[[90, 10, 70]]]);
  });
  it('shows what a camera sees, and from where', () => {
    const program = programOf({
      ...newController(BLANK, 'c', 'Camera'),
      params: stillAll({ depth: true, camera: true, angle: 90, position: [200, 150], z: 100, turnY: 90 }),
    });
    expect(program.cameraAt(0)).toBe('c');
    const { corners, from } = sightOf(BLANK, program.eyeAt(0));
    // Half of 400 px at half of 90°: 200 px from what it looks at, beside it, as it is turned.
    expect(Math.hypot(from![0] - 200, from![1] - 150, from![2] - 100)).toBeCloseTo(200, 9);
    expect(from![2]).toBeCloseTo(100, 9);
    for (const corner of corners) expect(corner[0]).toBeCloseTo(200, 9);
    expect(sightOf(BLANK, eyeOf({ ...BLANK, eye: { ...BLANK.eye, angle: 0 } })).from).toBeNull();
  });
});
