/** Panes drawn together are the picture that was cut, pixel for pixel. */
import { checkProject } from '@kite/core/check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Item, Scene } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { addLayers } from '@kite/core/edits/layers';
import { cutByShapes, cutIntoPanes } from '@kite/core/edits/panes';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
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

/** The most that a channel of a pixel differs. */
const farthest = (a: Scene, b: Scene): number => {
  const other = drawnOf(b);
  return drawnOf(a).reduce((most, v, i) => Math.max(most, Math.abs(v - other[i]!)), 0);
};

const placed = {
  'as it is': layer,
  'between pixels, stretched': {
    ...layer,
    params: { position: { value: [81.3, 57.6] as const }, scale: { value: [1.173, 0.731] as const } },
  },
  'mirrored, turned by a quarter': {
    ...layer,
    params: {
      position: { value: [80.45, 60.2] as const },
      rotation: { value: 90 },
      scale: { value: [-0.877, 1.119] as const },
    },
  },
} as const;

it.each(
  Object.keys(placed).flatMap((how) =>
    (
      [
        [2, 3],
        [1, 7],
        [5, 5],
      ] as const
    ).map(([rows, columns]) => [rows, columns, how as keyof typeof placed] as const),
  ),
)('of %i rows and %i columns, %s', (rows, columns, how) => {
  const doc = applyEdit(newProject('p', 'P', [scene]), addLayers('s', [placed[how]])).doc;
  const whole = doc.scenes.s as Scene;
  const edit = cutIntoPanes(compileScene(whole, NO_LIBRARY), 'a', { rows, columns, gap: 0 }, 0, countingIds('n'));
  const cut = checkProject(applyEdit(doc, edit).doc).scenes.s as Scene;
  expect(cut.order.length).toBe(rows * columns);
  // Soft edges are mixed on a surface of each pane's own, and rounded there.
  expect(farthest(cut, whole)).toBeLessThanOrEqual(how === 'as it is' ? 0 : 3);
});

it.each([
  [3, 3, 17.3],
  [1, 7, -45],
  [4, 5, 81],
] as const)('of %i rows and %i columns, turned by %i degrees', (rows, columns, degrees) => {
  const turned = { ...layer, params: { ...layer.params, rotation: { value: degrees } } };
  const whole = applyEdit(newProject('p', 'P', [scene]), addLayers('s', [turned]));
  const program = compileScene(whole.doc.scenes.s as Scene, NO_LIBRARY);
  const edit = cutIntoPanes(program, 'a', { rows, columns, gap: 0 }, 0, countingIds('n'));
  const cut = checkProject(applyEdit(whole.doc, edit).doc).scenes.s as Scene;
  const [one, other] = [drawnOf(whole.doc.scenes.s as Scene), drawnOf(cut)];
  // Where it is one colour all round, so that no edge of its own is near.
  const { width } = SIZE;
  const flat = Array.from({ length: width * SIZE.height }, (_, i) => i).filter((i) =>
    [-width - 1, -width, -width + 1, -1, 1, width - 1, width, width + 1].every((by) =>
      [0, 1, 2].every((c) => one[4 * (i + by) + c] === one[4 * i + c]),
    ),
  );
  expect(flat.length).toBeGreaterThan(9_000);
  const far = (i: number) => Math.max(...[0, 1, 2].map((c) => Math.abs(one[4 * i + c]! - other[4 * i + c]!)));
  const differ = flat.map(far);
  // Each pane is rounded on a surface of its own.
  expect(Math.max(...differ)).toBeLessThanOrEqual(2);
  expect(differ.filter((by) => by > 1).length).toBeLessThan(flat.length / 500);
});

it.each(Object.keys(placed) as (keyof typeof placed)[])(
  'of the copies of a repeater that lie between pixels, %s',
  (how) => {
    const blinds = newDrawing(scene, 'b', 'Blinds', [
      newItem('s', 'rectangle', { width: 17.37, height: 119.1, centre: [-78.2, 0] }),
      newItem('sf', 'fill'),
      newItem('so', 'repeater', { copies: 10, position: [17.37, 0] }),
    ]);
    const both = applyEdit(
      newProject('p', 'P', [scene]),
      addLayers('s', [{ ...blinds, params: { position: { value: [80.3, 60.1] } } }, placed[how]]),
    ).doc;
    const edit = cutByShapes(compileScene(both.scenes.s as Scene, NO_LIBRARY), 'a', 'b', 0, countingIds('n'));
    const cut = checkProject(applyEdit(both, edit).doc).scenes.s as Scene;
    expect(cut.order.length).toBeGreaterThan(6);
    expect(farthest(cut, { ...scene, layers: { a: placed[how] }, order: ['a'] })).toBeLessThanOrEqual(3);
  },
);

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
