/** Other parents for layers in depth. */
import { describe, expect, it } from 'vitest';
import { newController, newDrawing, newItem, newProject, newScene, stillAll } from '../document/make';
import type { Layer, Point, Project, Value } from '../document/types';
import { applyThrough } from '../geometry/through';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { applyEdit } from './apply';
import { setParent } from './place';

const EMPTY = newScene('s', 'Depth', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 10,
  background: null,
});
const CORNERS: readonly Point[] = [
  [-20, -10],
  [20, -10],
  [20, 10],
  [-20, 10],
];
const seenIn = (doc: Project) => {
  const program = compileScene(doc.scenes.s!, NO_LIBRARY);
  return CORNERS.map((corner) => applyThrough(program.throughAt('a', 0), corner));
};

describe('a layer that is hung from another in depth', () => {
  const about = (id: string, values: { readonly [key: string]: Value }): Layer => ({
    ...newController(EMPTY, id, id),
    params: stillAll(values),
  });
  const controllers = [
    about('flat', { position: [90, 40], rotation: 30 }),
    about('deep', { depth: true, position: [200, 150], z: 80, turnX: 40, turnY: -65, rotation: 15 }),
    about('large', { depth: true, position: [100, 90], z: -30, turnY: 200, scale: [2, 2], scaleZ: 2 }),
  ];
  const own = { position: [150, 120], pivot: [4, 7], rotation: -20, scale: [1.5, 0.7] } as const;
  it.each([
    ['in the plane', own],
    ['mirrored', { ...own, scale: [-1.5, 0.7] }],
    ['in depth', { ...own, depth: true, z: 60, turnX: 25, turnY: 130, pivotZ: 5 }],
    ['facing away', { ...own, depth: true, turnY: 90 }],
  ] as const)('stands where it stood, and back again: %s', (_name, values) => {
    const items = [newItem('r', 'rectangle', { width: 40, height: 20 }), newItem('f', 'fill')];
    const layer: Layer = { ...newDrawing(EMPTY, 'a', 'Sign', items), params: stillAll(values) };
    const layers = [layer, ...controllers];
    let doc = newProject('p', 'P', [
      { ...EMPTY, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) },
    ]);
    const before = seenIn(doc);
    for (const parent of ['deep', 'flat', 'large', 'deep', null]) {
      doc = applyEdit(doc, setParent('s', ['a'], parent, 0)).doc;
      seenIn(doc).forEach(([x, y], i) => {
        const [u, v] = before[i] as Point;
        expect(Math.hypot(x - u, y - v), `under ${parent}, corner ${i}`).toBeLessThan(0.02);
      });
    }
  });
});
