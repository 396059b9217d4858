/** What depth costs: a cube of six letters beside its faces laid flat, and planes put in order. */
import { newController, newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Layer, Scene, Value } from '@kite/core/document/types';
import { inDepth } from '@kite/core/geometry/planes';
import { applySpace, placedInSpace, type Point3 } from '@kite/core/geometry/space';
import { eyeOf } from '@kite/core/scene/eye';
import { frameDrawer } from '@kite/render/frames';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { median } from './median';

const EMPTY = newScene('s', 'Depth', {
  width: 1920,
  height: 1080,
  rate: { num: 25, den: 1 },
  length: 60,
  background: '#10132E',
});
const SIDE = 400;
const POSES: readonly (readonly [x: number, y: number, z: number, turnX: number, turnY: number])[] = [
  [0, 0, -1, 0, 0],
  [0, 0, 1, 0, 180],
  [-1, 0, 0, 0, -90],
  [1, 0, 0, 0, 90],
  [0, -1, 0, 90, 0],
  [0, 1, 0, -90, 0],
];

const valued = (values: { readonly [key: string]: Value }) =>
  Object.fromEntries(Object.entries(values).map(([key, value]) => [key, { value }]));

/** Six faces with a letter each, on a controller that turns: in depth, or side by side and turned in the plane. */
const faces = (depth: boolean): Scene => {
  const font = { family: 'Inter', weight: 800, italic: false };
  const turning = { keys: [0, 59].map((frame) => ({ frame, value: frame * 6, ease: { kind: 'linear' as const } })) };
  const about: Layer = {
    ...newController(EMPTY, 'c', 'About'),
    params: depth
      ? { ...valued({ depth, position: [960, 540] }), turnX: turning, turnY: turning }
      : { ...valued({ position: [960, 540] }), rotation: turning },
  };
  const layers = POSES.map(([x, y, z, turnX, turnY], i): Layer => {
    const half = SIDE / 2;
    const place: { readonly [key: string]: Value } = depth
      ? { depth, position: [x * half, y * half] as const, z: z * half, turnX, turnY }
      : { position: [((i % 3) - 1) * SIDE, (Math.floor(i / 3) - 0.5) * SIDE] as const };
    const items = [
      newItem('r', 'rectangle', { width: SIDE, height: SIDE }),
      newItem('rf', 'fill', { color: '#FFB23E' }),
      { ...newItem('g', 'group'), children: ['t', 'tf'] },
      newItem('t', 'text', { text: 'NIGHT!'[i]!, size: 320, font }),
      newItem('tf', 'fill', { color: '#10132E' }),
    ];
    return {
      ...{ ...newDrawing(EMPTY, `f${i}`, `Face ${i}`, items), recipe: ['r', 'rf', 'g'] },
      parent: 'c',
      params: valued(place),
    };
  });
  const all = [...layers, about];
  return { ...EMPTY, layers: Object.fromEntries(all.map((l) => [l.id, l])), order: all.map((l) => l.id) };
};

/** Milliseconds for a frame, drawn. */
const drawing = async (scene: Scene): Promise<number> => {
  const materials = await materialsFor(scene, EMPTY_STOCK);
  const drawer = frameDrawer(scene, materials, { width: 1920, height: 1080, drawn: scene, under: null });
  const times = Array.from({ length: 40 }, (_, i) => {
    const start = performance.now();
    drawer.draw(i);
    drawer.pixels();
    return performance.now() - start;
  });
  return median(times.slice(10));
};

/** Milliseconds to put so many squares in order, of this side, anywhere before the eye. */
const ordering = (count: number, side: number): number => {
  let seed = 5;
  const next = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
  const polygons = Array.from({ length: count }, (): Point3[] => {
    const space = placedInSpace({
      ...{
        position: [next() * 1920, next() * 1080],
        z: next() * 1000,
        pivot: [0, 0],
        pivotZ: 0,
        scale: [1, 1],
        scaleZ: 1,
      },
      ...{ turnX: next() * 360, turnY: next() * 360, rotation: next() * 360 },
    });
    const half = side / 2;
    const corners = [
      [-half, -half],
      [half, -half],
      [half, half],
      [-half, half],
    ] as const;
    return corners.map((corner) => applySpace(space, [...corner, 0]));
  });
  const times = Array.from({ length: 30 }, () => {
    const start = performance.now();
    inDepth(polygons, eyeOf(EMPTY));
    return performance.now() - start;
  });
  return median(times.slice(10));
};

const round = (v: number): number => Number(v.toFixed(2));

export const measureDepth = async (): Promise<{ depth: Record<string, number> }> => {
  const [flat, deep] = [await drawing(faces(false)), await drawing(faces(true))];
  const [few, many] = [ordering(300, 100), ordering(2_000, 40)];
  return {
    depth: {
      cubeToFlat: round(deep / flat),
      cubeMs: round(deep),
      order300Ms: round(few),
      order2000To300: round(many / few),
    },
  };
};
