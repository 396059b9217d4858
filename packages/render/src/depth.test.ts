/** Layers in depth, as they are drawn: closed where planes meet, and in order, beside closed forms. */
import { newController, newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { DrawingLayer, Item, Layer, Scene, Value } from '@kite/core/document/types';
import { sidesOf } from '@kite/core/geometry/convex';
import { projectedPoint } from '@kite/core/geometry/planes';
import { applySpace, chained, placedInSpace } from '@kite/core/geometry/space';
import { applyThrough } from '@kite/core/geometry/through';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { eyeOf } from '@kite/core/scene/eye';
import { describe, expect, it } from 'vitest';
import { frameDrawer } from './frames';
import { NO_MATERIALS } from './materials';

const [W, H, SIDE] = [160, 120, 60];
const EMPTY = newScene('s', 'Depth', {
  width: W,
  height: H,
  rate: { num: 24, den: 1 },
  length: 1,
  background: '#000000',
});

const valued = (values: { readonly [key: string]: Value }) =>
  Object.fromEntries(Object.entries(values).map(([key, value]) => [key, { value }]));

const square = (id: string, fill: Item, values: { readonly [key: string]: Value }): DrawingLayer => ({
  ...newDrawing(EMPTY, id, id, [newItem('r', 'rectangle', { width: SIDE, height: SIDE }), fill]),
  params: valued({ depth: true, ...values }),
});
const sceneOf = (layers: readonly Layer[]): Scene => ({
  ...EMPTY,
  layers: Object.fromEntries(layers.map((layer) => [layer.id, layer])),
  order: layers.map(({ id }) => id),
});
const drawn = (scene: Scene): Uint8ClampedArray => {
  const drawer = frameDrawer(scene, NO_MATERIALS, { width: W, height: H, drawn: scene, under: scene.background });
  drawer.draw(0);
  return drawer.pixels();
};

const HALF = SIDE / 2;
const FACES: readonly (readonly [x: number, y: number, z: number, turnX: number, turnY: number])[] = [
  [0, 0, -HALF, 0, 0],
  [0, 0, HALF, 0, 180],
  [-HALF, 0, 0, 0, 90],
  [HALF, 0, 0, 0, -90],
  [0, -HALF, 0, 90, 0],
  [0, HALF, 0, -90, 0],
];
interface Turns {
  readonly turnX: number;
  readonly turnY: number;
  readonly rotation: number;
}
const cube = (turns: Turns, fill: (i: number) => Item, order = FACES.map((_, i) => i)): Scene => {
  const about = {
    ...newController(EMPTY, 'c', 'Cube'),
    params: valued({ depth: true, position: [W / 2, H / 2], ...turns }),
  };
  const faces = order.map((i): Layer => {
    const [x, y, z, turnX, turnY] = FACES[i]!;
    return { ...square(`f${i}`, fill(i), { position: [x, y], z, turnX, turnY }), parent: 'c' };
  });
  return sceneOf([...faces, about]);
};
const filled = (color: string) => newItem('f', 'fill', { color });

/** The faces of a cube on the screen, as the sides that a point within lies inside of. */
const facesOf = (turns: Turns): (readonly number[])[] => {
  const flat = { pivot: [0, 0], pivotZ: 0, scale: [1, 1], scaleZ: 1 } as const;
  const about = placedInSpace({ ...flat, position: [W / 2, H / 2], z: 0, ...turns });
  return FACES.map(([x, y, z, turnX, turnY]) => {
    const own = chained(about, placedInSpace({ ...flat, position: [x, y], z, turnX, turnY, rotation: 0 }));
    const corners = [
      [-HALF, -HALF],
      [HALF, -HALF],
      [HALF, HALF],
      [-HALF, HALF],
    ] as const;
    return sidesOf(corners.map((corner) => projectedPoint(eyeOf(EMPTY), applySpace(own, [...corner, 0]))));
  });
};
const isIn = (sides: readonly number[], x: number, y: number): boolean => {
  for (let i = 0; i < sides.length; i += 3) if (sides[i]! * x + sides[i + 1]! * y + sides[i + 2]! < -1e-6) return false;
  return true;
};
/** Pixels that the outermost edge goes through are only partly covered. */
const FAR_INSIDE = Array.from({ length: 9 }, (_, i) => [(i % 3) - 1, Math.floor(i / 3) - 1] as const);

describe('a cube of six squares', () => {
  it.each([
    ['of one colour', () => filled('#FFFFFF')],
    [
      'of gradients',
      () =>
        newItem('f', 'fill', {
          style: 'linear',
          gradient: {
            stops: [
              { at: 0, color: '#FFFFFF' },
              { at: 1, color: '#FEFEFE' },
            ],
          },
          from: [-HALF, 0],
          to: [HALF, 0],
        }),
    ],
  ])('%s shows nothing of what is behind it, at 360 poses', (name, fill) => {
    // Open seams are darker by up to 64; what is mapped by pixels is rounded more often.
    const least = name === 'of one colour' ? 252 : 247;
    const seen: string[] = [];
    const every = name === 'of one colour' ? 1 : 12;
    for (let pose = 0; pose < 360; pose += every) {
      const turns = { turnX: pose, turnY: (pose * 7) % 360, rotation: (pose * 13) % 360 };
      const pixels = drawn(cube(turns, fill, pose % 2 === 0 ? [0, 1, 2, 3, 4, 5] : [5, 3, 1, 4, 2, 0]));
      const faces = facesOf(turns);
      for (let y = 0; y < H; y++) {
        for (let x = 0; x < W; x++) {
          const covered = FAR_INSIDE.every(([dx, dy]) =>
            faces.some((sides) => isIn(sides, x + 0.5 + 1.2 * dx, y + 0.5 + 1.2 * dy)),
          );
          if (!covered) continue;
          const level = pixels[(y * W + x) * 4]!;
          if (level < least) seen.push(`${pose}: ${x}, ${y} is ${level}`);
        }
      }
    }
    expect(seen).toEqual([]);
  });
});

describe('layers in depth', () => {
  const at = (pixels: Uint8ClampedArray, x: number, y: number) => [
    ...pixels.subarray((y * W + x) * 4, (y * W + x) * 4 + 3),
  ];
  const [RED, GREEN] = [
    [0xe4, 0x57, 0x2e],
    [0x2e, 0xc4, 0xb6],
  ];
  const red = (values: { readonly [key: string]: Value }) => square('red', filled('#E4572E'), values);
  const green = (values: { readonly [key: string]: Value }) => square('green', filled('#2EC4B6'), values);
  const middle = [W / 2, H / 2] as const;

  it('show as they did without it, until they are turned or moved', () => {
    const place = { position: [70, 55], rotation: 20, scale: [1.2, 0.8], pivot: [5, 3] } as const;
    expect(drawn(sceneOf([red(place)]))).toEqual(drawn(sceneOf([red({ ...place, depth: false })])));
  });
  it('hide each other by what is nearer, and not by the order of the stack', () => {
    const scene = sceneOf([red({ position: middle, z: 50 }), green({ position: [W / 2 + 10, H / 2], z: 0 })]);
    expect(at(drawn(scene), W / 2, H / 2)).toEqual(GREEN);
    // A flat layer between them keeps its place: each sorts with its own neighbours.
    const flat = { ...square('flat', filled('#F2E9DC'), { depth: false, position: middle }) };
    const [front, back] = [red({ position: middle, z: 50 }), green({ position: middle, z: 0 })];
    expect(at(drawn(sceneOf([front, flat, back])), W / 2 + 4, H / 2)).toEqual(RED);
  });
  it('that cross are divided along the line where they meet', () => {
    const pixels = drawn(sceneOf([red({ position: middle, turnY: 45 }), green({ position: middle, turnY: -45 })]));
    // Turned by 45 degrees the right side of red goes away, and so green is nearer there.
    expect(at(pixels, W / 2 + 8, H / 2)).toEqual(GREEN);
    expect(at(pixels, W / 2 - 8, H / 2)).toEqual(RED);
  });
  it('that are divided by a plane beyond their own edge show no seam', () => {
    // A small square cuts through the middle of a large one: beyond it both parts of the large one meet.
    const small = square('small', filled('#2EC4B6'), { position: middle, turnY: 90, scale: [0.3, 0.3] });
    const large = square('large', filled('#FFFFFF'), { position: middle, turnY: 20, turnX: 10 });
    const pixels = drawn(sceneOf([small, large]));
    for (let y = H / 2 + 14; y < H / 2 + 26; y++)
      for (let x = W / 2 - 15; x < W / 2 + 15; x++) expect(at(pixels, x, y)).toEqual([255, 255, 255]);
  });
  it('that meet along a part of a side show no seam there, and no more beyond it', () => {
    // A short wall stands on the side of a long floor, at right angles.
    const white = (id: string, values: { readonly [key: string]: Value }) => square(id, filled('#FFFFFF'), values);
    let poses = 0;
    for (let pose = 0; pose < 90; pose += 3) {
      const about: Layer = {
        ...newController(EMPTY, 'c', 'About'),
        params: valued({ depth: true, position: middle, turnX: -20 - pose / 3, turnY: pose - 45, rotation: pose }),
      };
      const parts: Layer[] = [
        { ...white('wall', { position: [0, 0], pivot: [0, HALF], scale: [0.5, 0.6] }), parent: 'c' },
        { ...white('floor', { position: [0, 0], pivot: [0, HALF], turnX: -90, scale: [1, 0.8] }), parent: 'c' },
      ];
      const scene = sceneOf([...parts, about]);
      const pixels = drawn(scene);
      const program = compileScene(scene, NO_LIBRARY);
      const onScreen = (id: string, x: number) => applyThrough(program.throughAt(id, 0), [x, HALF]);
      const [from, to] = [onScreen('wall', -HALF), onScreen('wall', HALF)];
      // Seen with both on one side of it, it is the outermost edge of both.
      const [up, out] = ['wall', 'floor'].map((id) => {
        const [x, y] = applyThrough(program.throughAt(id, 0), [0, 0]);
        return (to[0] - from[0]) * (y - from[1]) - (to[1] - from[1]) * (x - from[0]);
      }) as [number, number];
      if (up * out > 0) continue;
      poses++;
      for (let share = 0.1; share <= 0.9; share += 0.05) {
        const [x, y] = [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share];
        const [level] = at(pixels, Math.floor(x), Math.floor(y));
        expect(level, `pose ${pose} at ${share}`).toBeGreaterThanOrEqual(252);
      }
    }
    expect(poses).toBeGreaterThan(15);
  });
  it('show their back, nothing, or a colour', () => {
    const turned = { position: middle, turnY: 180 } as const;
    expect(at(drawn(sceneOf([red(turned)])), 80, 60)).toEqual(RED);
    expect(at(drawn(sceneOf([red({ ...turned, back: 'hidden' })])), 80, 60)).toEqual([0, 0, 0]);
    expect(at(drawn(sceneOf([red({ ...turned, back: 'colored', backColor: '#2EC4B6' })])), 80, 60)).toEqual(GREEN);
    expect(at(drawn(sceneOf([red({ position: middle, back: 'hidden' })])), 80, 60)).toEqual(RED);
  });
  it('are seen through a camera: the other way round, from frame to frame the one in front', () => {
    const turns = { turnX: 20, turnY: -35, rotation: 10 };
    const camera = (values: { readonly [key: string]: Value }, fields: Partial<Layer> = {}): Layer =>
      ({
        ...newController(EMPTY, `k${Object.keys(values).length}`, 'Camera'),
        ...fields,
        params: valued({ depth: true, camera: true, position: middle, ...values }),
      }) as Layer;
    const one = cube(turns, (i) => filled(['#E4572E', '#2EC4B6', '#FFB23E', '#4F86B8', '#E9ECF5', '#FF5D5D'][i]!));
    const seen = (...cameras: Layer[]): Uint8ClampedArray =>
      drawn({
        ...one,
        layers: { ...one.layers, ...Object.fromEntries(cameras.map((layer) => [layer.id, layer])) },
        order: [...cameras.map(({ id }) => id), ...one.order],
      });
    const plain = drawn(one);
    expect(seen(camera({}))).toEqual(plain);
    // Moved to the left by 20 px it shows all 20 px further to the right.
    const aside = seen(camera({ position: [W / 2 - 20, H / 2] }));
    expect(at(aside, W / 2 + 20, H / 2)).toEqual(at(plain, W / 2, H / 2));
    // What is turned as the camera is stands before it as if neither were turned.
    const straight = drawn(cube({ turnX: 0, turnY: 0, rotation: 0 }, () => filled('#FFB23E')));
    const along = drawn({
      ...cube(turns, () => filled('#FFB23E')),
      ...(() => {
        const same = cube(turns, () => filled('#FFB23E'));
        const eye = camera(turns);
        return { layers: { ...same.layers, [eye.id]: eye }, order: [eye.id, ...same.order] };
      })(),
    });
    let furthest = 0;
    straight.forEach((v, i) => (furthest = Math.max(furthest, Math.abs(v - along[i]!))));
    expect(furthest).toBeLessThanOrEqual(1);
    // The front one is in force, as long as it is there and shown.
    const [near, far] = [camera({ z: -200 }), camera({ turnY: 40, z: 0 })];
    expect(seen(near, far)).toEqual(seen(near));
    expect(seen({ ...near, to: 0 }, far)).toEqual(seen(far));
    expect(seen({ ...near, hidden: true }, far)).toEqual(seen(far));
    expect(seen(camera({ scale: [0, 0] }))).toEqual(plain);
    // Without an angle there is no perspective: what is farther away is as large.
    const flat = seen(camera({ angle: 0, z: 300 }));
    expect(flat).toEqual(seen(camera({ angle: 0, z: 0, lit: false })));
  });
  it('are shaded by the cosine between their normal and the light, where they are lit', () => {
    const lit = (values: { readonly [key: string]: Value }, light: Partial<Scene['light']>) =>
      at(
        drawn({ ...sceneOf([red({ position: middle, lit: true, ...values })]), light: { ...EMPTY.light, ...light } }),
        80,
        60,
      );
    const shade = (share: number) => RED.map((v) => Math.round(v! * share));
    const near = (got: readonly number[], share: number) =>
      got.forEach((v, i) => expect(Math.abs(v - shade(share)[i]!)).toBeLessThanOrEqual(1));
    // Turned by 60 degrees about y it faces to the right; the light comes from there, or from straight ahead.
    near(lit({ turnY: 60 }, { turn: 90, tilt: 0, strength: 1 }), Math.sin(Math.PI / 3));
    near(lit({ turnY: 60 }, { tilt: 90, strength: 1 }), 0.5);
    near(lit({ turnY: 60 }, { tilt: 90, strength: 0.5 }), 0.75);
    // The side that is seen is the one that is lit.
    near(lit({ turnY: 180 }, { tilt: 90, strength: 1 }), 1);
    near(lit({ turnY: 60 }, { turn: -90, tilt: 0, strength: 1 }), 0);
    near(lit({ turnY: 60, lit: false }, { tilt: 90, strength: 1 }), 1);
  });
  it('seen from the edge, behind the eye, or as flat as nothing draw nothing', () => {
    const { distance } = eyeOf(EMPTY);
    const unseen: readonly { readonly [key: string]: Value }[] = [
      { turnY: 90 },
      { z: -distance - 10 },
      { z: -distance },
      { scale: [0, 0] },
      { scale: [1e-9, 1] },
    ];
    for (const values of unseen)
      expect(drawn(sceneOf([red({ position: middle, ...values })])).every((v, i) => i % 4 === 3 || v === 0)).toBe(true);
    // One that reaches behind the eye shows what is before it.
    const long = red({ position: middle, turnX: 90, scale: [1, 40], pivot: [0, 20], pivotZ: 10 });
    expect(drawn(sceneOf([long])).some((v, i) => i % 4 < 3 && v > 0)).toBe(true);
  });
});

describe('a picture bent by a mesh', () => {
  const gradient = newItem('f', 'fill', {
    style: 'linear',
    gradient: {
      stops: [
        { at: 0, color: '#FF0000' },
        { at: 0.5, color: '#00FF40' },
        { at: 1, color: '#2020FF' },
      ],
    },
    from: [-40, -20],
    to: [40, 25],
  });
  const bentBy = (ways: (x: number, y: number) => readonly [number, number]) => {
    const card = newItem('m', 'mesh', {
      points: {
        columns: 2,
        rows: 2,
        ways: [-1, 0, 1].flatMap((y) => [-1, 0, 1].flatMap((x) => ways(40 * x, 25 * y))),
      },
    });
    const rectangle = newItem('r', 'rectangle', { width: 80, height: 50 });
    return { ...newDrawing(EMPTY, 'a', 'Sheet', [rectangle, gradient, card], { position: [80, 60] }) };
  };
  const plain = (values: { readonly [key: string]: Value }) => ({
    ...newDrawing(EMPTY, 'a', 'Sheet', [newItem('r', 'rectangle', { width: 80, height: 50 }), gradient]),
    params: valued({ position: [80, 60], ...values }),
  });
  const furthest = (one: Uint8ClampedArray, other: Uint8ClampedArray, inside: (x: number, y: number) => boolean) => {
    let most = 0;
    for (let y = 0; y < H; y++) {
      for (let x = 0; x < W; x++) {
        if (!inside(x, y)) continue;
        const k = (y * W + x) * 4;
        for (let c = 0; c < 3; c++) most = Math.max(most, Math.abs(one[k + c]! - other[k + c]!));
      }
    }
    return most;
  };
  it('that only moves it is the picture moved', () => {
    const moved = drawn(sceneOf([bentBy(() => [7, -5])]));
    const wanted = drawn(sceneOf([plain({ position: [87, 55] })]));
    expect(furthest(moved, wanted, () => true)).toBeLessThanOrEqual(2);
  });
  it('that only stretches it is the picture stretched', () => {
    const stretched = drawn(sceneOf([bentBy((x, y) => [x * 0.5, y * -0.2])]));
    const wanted = drawn(sceneOf([plain({ scale: [1.5, 0.8] })]));
    // Its edges are those of the picture, read between pixels.
    expect(
      furthest(stretched, wanted, (x, y) => Math.abs(x - 79.5) < 57 && Math.abs(y - 59.5) < 17),
    ).toBeLessThanOrEqual(3);
    expect(furthest(stretched, wanted, (x, y) => Math.abs(x - 79.5) > 63 || Math.abs(y - 59.5) > 23)).toBe(0);
  });
  it('has no seams between its cells, and none of the ground within', () => {
    const bent = drawn(sceneOf([bentBy((x, y) => [y / 4, x === 0 ? -12 : 6])]));
    let dark = 0;
    for (let y = 45; y < 70; y++) {
      for (let x = 50; x < 110; x++) {
        const k = (y * W + x) * 4;
        if (bent[k]! + bent[k + 1]! + bent[k + 2]! < 200) dark++;
      }
    }
    expect(dark).toBe(0);
  });
});
