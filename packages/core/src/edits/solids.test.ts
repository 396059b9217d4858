import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { DrawingLayer, Project, Scene } from '../document/types';
import type { Mark } from '../recipe/types';
import { boxOfMarks } from '../recipe/marks';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { applyEdit } from './apply';
import { addLayers } from './layers';
import { setValue } from './properties';
import { makeSolid, newSolid, type Solid, SOLIDS } from './solids';

const empty = newScene('s', 'One', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 50,
  background: null,
});
const SOLID: Solid = { form: 'box', depth: 60, color: '#4F86B8', count: 4, angle: 20, gap: 30 };
const sheet = (values: Partial<DrawingLayer> = {}): DrawingLayer => ({
  ...newDrawing(empty, 'a', 'Sign', [newItem('r', 'rectangle', { width: 90, height: 60 }), newItem('f', 'fill')]),
  ...values,
});
const placed = {
  position: { value: [210, 140] },
  rotation: { value: 30 },
  scale: { value: [1.5, 0.5] },
  pivot: { value: [20, 10] },
} as const;
const projectOf = (layer: DrawingLayer): Project =>
  applyEdit(newProject('p', 'P', [empty]), addLayers('s', [layer])).doc;
const programOf = (doc: Project) => compileScene(doc.scenes.s as Scene, NO_LIBRARY);
const made = (doc: Project, solid: Partial<Solid>): Project =>
  checkProject(
    applyEdit(doc, makeSolid(programOf(doc), 'a', { ...SOLID, ...solid }, 0, 'about', countingIds('n'))).doc,
  );
const namesOf = (doc: Project) => doc.scenes.s!.order.map((id) => doc.scenes.s!.layers[id]?.name);
const STILL = { write: 'curve', frame: 0 } as const;
const boxed = (marks: readonly Mark[]) => {
  const box = boxOfMarks(marks)!;
  return Object.values(box).map((v) => Math.round(v * 100) / 100 + 0);
};

describe('a thing in depth made of a layer', () => {
  it.each(SOLIDS)('leaves the picture of the layer where it was: %s', (form) => {
    const before = projectOf(sheet({ params: placed }));
    const after = made(before, { form });
    const only = (id: string) => id === 'a';
    expect(boxed(programOf(after).at(0, only).marks)).toEqual(boxed(programOf(before).at(0, only).marks));
  });
  it('has its faces by name, on a controller in their middle', () => {
    const doc = made(projectOf(sheet()), {});
    expect(namesOf(doc)).toEqual([
      'Sign box',
      'Sign',
      ...['right', 'left', 'top', 'bottom', 'back'].map((name) => `Sign ${name}`),
    ]);
    const { layers } = doc.scenes.s!;
    expect(Object.values(layers).filter(({ parent }) => parent === 'about')).toHaveLength(6);
    expect(layers.about!.params.z).toEqual({ value: 30 });
  });
  it('shows each of its sides as it is turned, upright', () => {
    const doc = made(projectOf(sheet({ params: { position: { value: [200, 150] } } })), {});
    const turnedTo = (key: 'turnX' | 'turnY', value: number) =>
      programOf(applyEdit(doc, setValue({ scene: 's', layer: 'about', key }, value, STILL)).doc);
    const inkOf = (key: 'turnX' | 'turnY', value: number): string => {
      const front = turnedTo(key, value)
        .at(0)
        .marks.findLast((mark) => mark.op === 'fill');
      return front?.op === 'fill' && front.ink.style === 'solid' ? front.ink.color : '';
    };
    const { layers, order } = doc.scenes.s!;
    const colorOf = (name: string) => {
      const layer = layers[order.find((id) => layers[id]?.name === name)!] as DrawingLayer;
      const fill = Object.values(layer.items).find(({ kind }) => kind === 'fill');
      return (fill?.params.color as { value: string }).value;
    };
    // Turned about y the right side goes away, and what comes to the front is the left one.
    expect(inkOf('turnY', 90)).toBe(colorOf('Sign left'));
    expect(inkOf('turnY', -90)).toBe(colorOf('Sign right'));
    expect(inkOf('turnX', 90)).toBe(colorOf('Sign bottom'));
    expect(inkOf('turnX', -90)).toBe(colorOf('Sign top'));
    expect(inkOf('turnY', 180)).toBe(colorOf('Sign back'));
    // Seen from the front none is mirrored: their own right is on the right.
    for (const [name, key, value] of [
      ['left', 'turnY', 90],
      ['right', 'turnY', -90],
      ['top', 'turnX', -90],
      ['bottom', 'turnX', 90],
    ] as const) {
      const program = turnedTo(key, value);
      const id = order.find((one) => layers[one]?.name === `Sign ${name}`)!;
      const [a, b, c, d] = program.matrixAt(id, 0);
      expect([a > 0, Math.abs(b) < 1e-6, Math.abs(c) < 1e-6, d > 0]).toEqual([true, true, true, true]);
    }
  });
  it('of a card shows one side at a time', () => {
    const doc = made(projectOf(sheet({ params: { position: { value: [200, 150] } } })), { form: 'card' });
    const shownAt = (turnY: number) => {
      const turned = applyEdit(doc, setValue({ scene: 's', layer: 'about', key: 'turnY' }, turnY, STILL)).doc;
      return programOf(turned).at(0).marks.length;
    };
    expect([0, 80, 100, 180, 300].map(shownAt)).toEqual([1, 1, 1, 1, 1]);
  });
  it('is refused in words where there is nothing to make it of, or it is made already', () => {
    expect(() => made(projectOf(sheet({ items: {}, recipe: [] })), {})).toThrow('shows nothing at this frame');
    const doc = made(projectOf(sheet()), {});
    expect(() => made(doc, {})).toThrow('has depth already');
  });
});

describe('a thing in depth of chosen sizes', () => {
  it.each(SOLIDS)('stands in the middle, its front a new rectangle: %s', (form) => {
    const doc = checkProject(
      applyEdit(
        newProject('p', 'P', [empty]),
        newSolid(empty, { width: 120, height: 50 }, { ...SOLID, form }, 0, 'about', countingIds('n')),
      ).doc,
    );
    const { order } = doc.scenes.s!;
    expect(order[0]).toBe('about');
    const front = order[1] as string;
    const names = {
      box: ['Box', 'Box front'],
      card: ['Card', 'Card front'],
      fan: ['Fan', 'Fan 1'],
      stack: ['Stack', 'Stack 1'],
    };
    expect(namesOf(doc).slice(0, 2)).toEqual(names[form]);
    expect(boxed(programOf(doc).at(0, (id) => id === front).marks)).toEqual([140, 125, 260, 175]);
    expect(order).toHaveLength({ box: 7, card: 3, fan: 5, stack: 5 }[form]);
  });
});
