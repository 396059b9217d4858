/** Panes drawn together are the picture that was cut, pixel for pixel. */
import { checkProject } from '@kite/core/check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Item, Scene } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { addLayers } from '@kite/core/edits/layers';
import { cutIntoPanes } from '@kite/core/edits/panes';
import { compileScene, NO_LIBRARY } from '@kite/core/scene/compile';
import { expect, it } from 'vitest';
import { frameDrawer } from './frames';
import { NO_MATERIALS } from './materials';

const SIZE = { width: 160, height: 120 } as const;
const scene = newScene('s', 'Window', { ...SIZE, rate: { num: 25, den: 1 }, length: 10, background: '#26324F' });
const layer = newDrawing(
  scene,
  'a',
  'Window',
  // Of whole pixels, as a picture is.
  [0, 1, 2, 3].flatMap((i) => [
    newItem(`r${i}`, 'rectangle', { width: 100 - i * 22, height: 76 - i * 14, centre: [i * 3, i * 2] }),
    newItem(`f${i}`, 'fill', { color: ['#C2714A', '#F2E9DC', '#28B5A5', '#1B2A41'][i] as string }),
  ]),
  { position: [81, 58] },
);
const drawnOf = (of: Scene): Uint8ClampedArray => {
  const drawer = frameDrawer(of, NO_MATERIALS, { ...SIZE, drawn: SIZE, under: null });
  drawer.draw(0);
  return drawer.canvas.data().slice() as unknown as Uint8ClampedArray;
};

it.each([
  [2, 3],
  [1, 7],
  [5, 5],
])('of %i rows and %i columns', (rows, columns) => {
  const doc = applyEdit(newProject('p', 'P', [scene]), addLayers('s', [layer])).doc;
  const whole = doc.scenes.s as Scene;
  const edit = cutIntoPanes(compileScene(whole, NO_LIBRARY), 'a', { rows, columns, gap: 0 }, 0, countingIds('n'));
  const cut = checkProject(applyEdit(doc, edit).doc).scenes.s as Scene;
  expect(cut.order.length).toBe(rows * columns);
  expect(Buffer.compare(Buffer.from(drawnOf(cut)), Buffer.from(drawnOf(whole)))).toBe(0);
});

it('copies of a repeater that touch leave no seam, however they are turned', () => {
  const strips = (width: number, centre: readonly [number, number], ...more: readonly Item[]) => {
    const items = [
      newItem('r', 'rectangle', { width, height: 60, centre }),
      newItem('f', 'fill', { color: '#F2E9DC' }),
      ...more,
    ];
    const made = newDrawing(scene, 'l', 'Strips', items, { position: [80, 60] });
    const turned = { ...made, params: { ...made.params, rotation: { value: 17.3 } } };
    return drawnOf({ ...scene, layers: { l: turned }, order: ['l'] });
  };
  const copies = strips(20, [-40, 0], newItem('o', 'repeater', { copies: 5, position: [20, 0] }));
  const one = strips(100, [0, 0]);
  // Outer edges are rounded otherwise where several outlines share a pixel; inside all of it is one colour.
  const [red, inside] = [0xf2, Array.from({ length: SIZE.width * SIZE.height }, (_, i) => i * 4)];
  const whole = inside.filter((i) => one[i] === red);
  expect(whole.length).toBeGreaterThan(5_000);
  expect(whole.filter((i) => copies[i] !== red)).toEqual([]);
});
