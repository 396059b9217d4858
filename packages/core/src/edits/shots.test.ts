import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Scene } from '../document/types';
import { layerBoxInScene } from '../scene/bounds';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { applyEdit } from './apply';
import { addLayers } from './layers';
import { cutIntoShots, evenCuts } from './shots';

const empty = newScene('s', 'S', { width: 200, height: 100, rate: { num: 25, den: 1 }, length: 40, background: null });
const square = [newItem('r', 'rectangle', { width: 20, height: 20 }), newItem('f', 'fill')];
const doc = applyEdit(newProject('p', 'P', [empty]), addLayers('s', [newDrawing(empty, 'a', 'Tram', square)])).doc;
let ids = 0;
const makeId = () => `n${++ids}`;

describe('a layer cut into shots', () => {
  it('is as large as each shot has it, one at a time, for as long as before', () => {
    const next = applyEdit(doc, cutIntoShots('s', 'a', evenCuts({ from: 0, to: 40 }, 4), makeId)).doc;
    checkProject(next);
    const scene = next.scenes.s as Scene;
    const program = compileScene(scene, NO_LIBRARY);
    const widths = [0, 9, 10, 20, 30, 39].map((frame) => {
      const there = scene.order.filter((id) => scene.layers[id]!.from <= frame && frame < scene.layers[id]!.to);
      expect(there).toHaveLength(1);
      const box = layerBoxInScene(program, there[0]!, frame)!;
      expect((box.left + box.right) / 2).toBeCloseTo(100, 9);
      return Math.round(box.right - box.left);
    });
    expect(widths).toEqual([20, 20, 36, 27, 20, 20]);
    expect(scene.order.map((id) => scene.layers[id]?.name).toReversed()).toEqual([
      'Tram',
      'Tram shot 2',
      'Tram shot 3',
      'Tram shot 4',
    ]);
  });
  it('has cuts within it alone, and is refused where there are none', () => {
    expect(evenCuts({ from: 5, to: 7 }, 10)).toEqual([6]);
    const next = applyEdit(doc, cutIntoShots('s', 'a', [-3, 12, 90], makeId)).doc;
    expect(next.scenes.s?.order).toHaveLength(2);
    expect(() => applyEdit(doc, cutIntoShots('s', 'a', [0, 40], makeId))).toThrow('“Tram” is too short');
  });
});
