import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newScene } from '../document/make';
import type { Item, Layer, Scene } from '../document/types';
import { compileScene } from '../scene/compile';
import { wholeScene } from '../scene/whole';
import { squareFonts } from '../test/fonts';
import { Chance } from '../test/random';
import { randomProject } from '../test/randomProject';
import { leanScene } from './lean';
import { settled } from './settled';

const SIZE = { width: 300, height: 250, rate: { num: 30, den: 1 }, length: 90, background: '#1B1F4B' } as const;
const sceneOf = (items: readonly Item[], fields: Partial<Layer> = {}): Scene => {
  const scene = newScene('s', 'Late ticket', SIZE);
  const layer = { ...newDrawing(scene, 'a', 'Ticket', items), ...fields } as Layer;
  return { ...scene, layers: { a: layer }, order: ['a'] };
};
const drawn = (scene: Scene, frame: number) => {
  const { problems: _told, ...list } = compileScene(scene, { fonts: squareFonts, assets: {} }).at(frame);
  return JSON.stringify(list, (_key, value: unknown) => (value instanceof Float64Array ? [...value] : value));
};

describe('what leaves with a banner', () => {
  it('draws the same, frame by frame, in a fraction of the words', () => {
    for (let seed = 0; seed < 40; seed++) {
      const project = randomProject(new Chance(seed));
      for (const scene of Object.values(project.scenes)) {
        const whole = wholeScene(scene, project);
        const lean = leanScene(whole);
        expect(JSON.stringify(lean).length).toBeLessThan(JSON.stringify(whole).length);
        for (const frame of [0, Math.floor(scene.length / 2)]) {
          expect(drawn(lean, frame), `seed ${seed}, frame ${frame}`).toBe(drawn(whole, frame));
        }
      }
    }
  });

  it('leaves out cards that are off, names and values that are the default ones', () => {
    const off = { ...newItem('m', 'blur', {}), on: false };
    const scene = sceneOf([newItem('r', 'rectangle', { width: 100, radius: 0 }), newItem('f', 'fill', {}), off]);
    const text = JSON.stringify(leanScene(scene));
    expect(text).not.toContain('blur');
    expect(text).not.toContain('Ticket');
    expect(text).not.toContain('radius');
    expect(text).toContain('"width":{"value":100}');
  });

  it('names cards by their order, those within others too', () => {
    const inner = { ...newItem('93ab', 'ellipse', {}), on: true };
    const group = { ...newItem('5c71', 'group', {}), children: ['93ab'] };
    const scene = sceneOf([group, newItem('0e5d', 'fill', {})]);
    const layer = scene.layers.a as Extract<Layer, { kind: 'drawing' }>;
    const whole = { ...scene, layers: { a: { ...layer, items: { ...layer.items, '93ab': inner } } } };
    const text = JSON.stringify(leanScene(whole));
    for (const id of ['93ab', '5c71', '0e5d']) expect(text).not.toContain(id);
    const marks = (of: Scene) => drawn(of, 3).replace(/"id":[^,}]+/g, '');
    expect(marks(leanScene(whole))).toBe(marks(whole));
    expect(marks(whole)).toContain('fill');
  });

  it('keeps what a formula may read', () => {
    const off = { ...newItem('m', 'blur', {}), on: false };
    const scene = sceneOf([newItem('r', 'rectangle', {}), newItem('f', 'fill', {}), off], {
      formulas: { opacity: { text: '50%', on: true } },
    });
    expect(JSON.stringify(leanScene(scene))).toContain('blur');
    expect(JSON.stringify(leanScene(scene))).toContain('Ticket');
  });
});

describe('area operations before delivery', () => {
  const parts = [
    newItem('r', 'rectangle', { width: 100, height: 60 }),
    newItem('e', 'ellipse', { width: 40, height: 40 }),
    newItem('c', 'combine', { operation: 'subtract' }),
  ];
  const kindsOf = ({ layers }: Scene) =>
    Object.values(layers).flatMap((layer) =>
      layer.kind === 'drawing' ? layer.recipe.map((id) => layer.items[id]?.kind) : [],
    );

  it('are paths where they do not move, and draw the same', () => {
    const scene = sceneOf([
      ...parts,
      newItem('o', 'offset', { amount: 6 }),
      newItem('f', 'fill', {}),
      newItem('b', 'blur', {}),
    ]);
    const done = settled(scene, squareFonts);
    expect(new Set(kindsOf(done))).toEqual(new Set(['path', 'fill', 'blur']));
    const marks = (of: Scene) => drawn(of, 3).replace(/"(id|work)":[^,}]+/g, '');
    expect(marks(done)).toBe(marks(scene));
  });

  it('stay where they move, where steps follow, or formulas read them', () => {
    const keys = [0, 30].map((frame) => ({ frame, value: frame, ease: { kind: 'linear' } as const }));
    const moving = { ...newItem('o', 'offset', {}), params: { amount: { keys } } };
    expect(kindsOf(settled(sceneOf([...parts, moving, newItem('f', 'fill', {})]), squareFonts))).toContain('combine');
    const trimmed = sceneOf([...parts, newItem('t', 'trim', { end: 0.5 }), newItem('f', 'fill', {})]);
    expect(kindsOf(settled(trimmed, squareFonts))).toContain('combine');
    const computed = sceneOf([...parts, newItem('f', 'fill', {})], {
      formulas: { opacity: { text: '50%', on: true } },
    });
    expect(settled(computed, squareFonts)).toBe(computed);
  });
});
