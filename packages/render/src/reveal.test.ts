/** Writing on: letters of the families that come along, covered whole by strokes along their own middle lines. */
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { DrawingLayer, FontChoice, Project, Scene } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { addLayers } from '@kite/core/edits/layers';
import { setValue } from '@kite/core/edits/properties';
import { FIRST_REVEAL, revealByStrokes, revealIn, revealOf } from '@kite/core/edits/reveal';
import { checkProject } from '@kite/core/check/project';
import { compileScene } from '@kite/core/scene/compile';
import type { Library } from '@kite/core/scene/program';
import { SHIPPED } from '@kite/core/type/shipped';
import { describe, expect, it } from 'vitest';
import { EMPTY_STOCK, materialsFor } from './materials';
import { drawn } from './test/drawn';

const SIZE = { width: 420, height: 160, rate: { num: 25, den: 1 }, length: 60, background: null } as const;
const empty = newScene('s', 'Written', SIZE);
let ids = 0;
const makeId = () => `n${++ids}`;

const word = (text: string, font: FontChoice, size = 72): Project => {
  const cards = [newItem('t', 'text', { text, font, size }), newItem('f', 'fill', { color: '#FFFFFF' })];
  const layer = newDrawing(empty, 'w', 'Word', cards, { position: [210, 100] });
  return applyEdit(newProject('p', 'P', [empty]), addLayers('s', [layer])).doc;
};
const sceneIn = (doc: Project) => doc.scenes.s as Scene;
const library = async (doc: Project): Promise<Library> => (await materialsFor(sceneIn(doc), EMPTY_STOCK)).library;
const written = (doc: Project, with_: Library, reveal = FIRST_REVEAL, from = 5): Project =>
  applyEdit(doc, revealByStrokes(compileScene(sceneIn(doc), with_), ['w'], reveal, 0, from, makeId)).doc;

describe('a word is written on', () => {
  it.each(SHIPPED)('in $name: nothing before, ever more of it, and all of it in the end', async ({ name, weights }) => {
    const doc = word('Saltings &', { family: name, weight: weights.at(-1) as number, italic: false });
    const lib = await library(doc);
    const after = written(doc, lib);
    checkProject(after);
    const alpha = (of: Project, frame: number) => drawn(sceneIn(of), { frame, library: lib }).alpha;
    const whole = alpha(doc, 0);
    expect(whole).toBeGreaterThan(500);
    const line = [4, 10, 17, 24].map((frame) => alpha(after, frame) / whole);
    expect(line[0]).toBe(0);
    for (const [i, share] of line.entries()) if (i > 0) expect(share).toBeGreaterThan(line[i - 1]!);
    const [a, b] = [drawn(sceneIn(doc), { library: lib }), drawn(sceneIn(after), { frame: 30, library: lib })];
    let differing = 0;
    for (let y = 0; y < SIZE.height; y++)
      for (let x = 0; x < SIZE.width; x++) if (a.at(x, y)[3] !== b.at(x, y)[3]) differing++;
    expect(differing).toBe(0);
  });
  it('is taken up again and changed, and is one mask with ordinary cards', async () => {
    const doc = word('Ropewalk', { family: 'Inter', weight: 700, italic: false });
    const lib = await library(doc);
    const once = written(doc, lib);
    const other = { frames: 40, strength: 0.5, order: 'together', step: 0, ahead: null } as const;
    const again = written(once, lib, other, 12);
    const layer = sceneIn(again).layers.w as DrawingLayer;
    expect(revealIn(layer, sceneIn(again))).toEqual({
      frames: 40,
      strength: 0.5,
      order: 'together',
      from: 12,
      ahead: null,
    });
    const kinds = (revealOf(layer)?.children ?? []).map((id) => layer.items[id]?.kind);
    expect([new Set(kinds), layer.recipe.length]).toEqual([new Set(['path', 'trim', 'stroke']), 3]);
    checkProject(again);
  });
  it('layers follow each other by a step, and what shows no shape is told', async () => {
    const doc = word('Mill', { family: 'Inter', weight: 700, italic: false });
    const lib = await library(doc);
    const copy = { ...(sceneIn(doc).layers.w as DrawingLayer), id: 'v' };
    const two = applyEdit(doc, addLayers('s', [copy])).doc;
    const edit = revealByStrokes(
      compileScene(sceneIn(two), lib),
      ['v', 'w'],
      { ...FIRST_REVEAL, step: 4 },
      0,
      10,
      makeId,
    );
    const { layers } = sceneIn(applyEdit(two, edit).doc);
    expect(['v', 'w'].map((id) => revealIn(layers[id] as DrawingLayer, { layers })?.from)).toEqual([10, 14]);
    const bare = applyEdit(newProject('p', 'P', [empty]), addLayers('s', [newDrawing(empty, 'b', 'Bare', [])])).doc;
    const none = revealByStrokes(compileScene(sceneIn(bare), lib), ['b'], FIRST_REVEAL, 0, 0, makeId);
    expect(() => applyEdit(bare, none)).toThrow('“Bare” shows no shape at this frame');
  });
  it('in one colour some frames ahead, which takes up what is written and goes when it is not wanted', async () => {
    const doc = word('Mill', { family: 'Inter', weight: 700, italic: false });
    const lib = await library(doc);
    const ahead = { color: '#FF0000', frames: 8 };
    const both = written(doc, lib, { ...FIRST_REVEAL, ahead }, 10);
    checkProject(both);
    const layer = sceneIn(both).layers.w as DrawingLayer;
    expect([sceneIn(both).order.length, revealIn(layer, sceneIn(both))?.ahead]).toEqual([2, ahead]);
    const colors = (of: Project, frame: number) => {
      const { at } = drawn(sceneIn(of), { frame, library: lib });
      const seen = new Set<string>();
      for (let y = 0; y < SIZE.height; y++) {
        for (let x = 0; x < SIZE.width; x++) {
          const [r, g, b, a] = at(x, y);
          if (a === 255) seen.add(`${r} ${g} ${b}`);
        }
      }
      return seen;
    };
    expect(colors(both, 9)).toEqual(new Set(['255 0 0']));
    expect([...colors(both, 22)]).toEqual(expect.arrayContaining(['255 0 0', '255 255 255']));
    expect(colors(both, 40).has('255 255 255')).toBe(true);
    // Words changed later are changed in both.
    const card = { scene: 's', layer: 'w', item: 't', key: 'text' };
    const other = applyEdit(both, setValue(card, 'M', { write: 'curve', frame: 0 })).doc;
    const alpha = (of: Project) => drawn(sceneIn(of), { frame: 55, library: lib }).alpha;
    expect(alpha(other) / alpha(both)).toBeLessThan(0.6);
    const without = written(both, lib, FIRST_REVEAL, 10);
    expect([
      sceneIn(without).order,
      revealIn(sceneIn(without).layers.w as DrawingLayer, sceneIn(without))?.ahead,
    ]).toEqual([['w'], null]);
  });
});
