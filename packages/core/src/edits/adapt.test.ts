import { expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import { layerBoxInScene } from '../scene/bounds';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import type { Scene } from '../document/types';
import { type Adapting, adaptScene } from './adapt';
import { applyEdit } from './apply';
import { setScene } from './scenes';

const FROM = { width: 1920, height: 1080 };
const scene = newScene('s', 'S', { ...FROM, rate: { num: 25, den: 1 }, length: 10, background: null });
const whole = newDrawing(
  scene,
  'w',
  'Whole',
  [newItem('r', 'rectangle', { width: 1920, height: 1080 }), newItem('f', 'fill')],
  {
    position: [960, 540],
  },
);
const guides = { x: [0, 960], y: [1080] };
const doc = newProject('p', 'P', [{ ...scene, guides, order: ['w'], layers: { w: whole } }]);

const adapted = (width: number, height: number, how: Adapting): Scene => {
  const resized = applyEdit(doc, setScene('s', { width, height })).doc;
  const { doc: after } = applyEdit(resized, adaptScene('s', FROM, how, 'c'));
  checkProject(after);
  return after.scenes.s as Scene;
};
const boxOf = (of: Scene) => layerBoxInScene(compileScene(of, NO_LIBRARY), 'w', 0);

it('what filled a scene fits into another size, fills it, or stays as large in its middle', () => {
  // 1080 / 1920 of 1080 rows, in the middle of 1920.
  expect(boxOf(adapted(1080, 1920, 'fit'))).toMatchObject({ left: 0, right: 1080, top: 656.25, bottom: 1263.75 });
  expect(boxOf(adapted(1080, 1080, 'fill'))).toMatchObject({ left: -420, right: 1500, top: 0, bottom: 1080 });
  expect(boxOf(adapted(300, 250, 'middle'))).toMatchObject({ left: -810, right: 1110, top: -415, bottom: 665 });
});

it('guides go along, and an empty scene stays empty', () => {
  expect(adapted(1080, 1920, 'fit').guides).toEqual({ x: [0, 540], y: [1263.75] });
  const empty = newProject('p', 'P', [scene]);
  expect(applyEdit(empty, adaptScene('s', FROM, 'fit', 'c')).patches).toEqual([]);
});
