/** Formulas as they are drawn: measured in pixels, frame by frame. */
import { newKnob } from '@kite/core/document/knobs';
import { newController, newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Edit } from '@kite/core/document/patches';
import { applyEdit } from '@kite/core/edits/apply';
import type { Id, Item, Project, PropertyRef, Scene } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { addKnob } from '@kite/core/edits/knobs';
import { setFormula } from '@kite/core/edits/formulas';
import { animate } from '@kite/core/edits/properties';
import { makeSet } from '@kite/core/edits/sets';
import { storedText, type Target } from '@kite/core/formula/refs';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { strFromU8, unzipSync } from 'fflate';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { frameDrawer } from './frames';
import { EMPTY_STOCK, materialsFor } from './materials';
import { renderScene } from './render';

const BLANK: Scene = newScene('s', 'Strip', {
  width: 200,
  height: 120,
  rate: { num: 25, den: 1 },
  length: 60,
  background: '#000000',
});
const at = (layer: Id, key: string, item?: Id): PropertyRef => ({
  scene: 's',
  layer,
  key,
  ...(item !== undefined && { item }),
});
const typed = (doc: Project, ref: PropertyRef, text: string): Edit =>
  setFormula(ref, storedText(text, doc.scenes.s as Scene, ref as Target));
const built = (edits: readonly ((doc: Project) => Edit)[]): Scene =>
  edits.reduce((doc, edit) => applyEdit(doc, edit(doc)).doc, newProject('p', 'P', [BLANK])).scenes.s as Scene;

/** Draws frames of a scene as RGBA. */
const drawing = async (scene: Scene) => {
  const materials = await materialsFor(scene, EMPTY_STOCK);
  const drawer = frameDrawer(scene, materials, { width: 200, height: 120, drawn: scene, under: null });
  return (frame: number): Uint8ClampedArray => {
    drawer.draw(frame);
    return drawer.pixels().slice();
  };
};

/** The first pixel of a bar from the left, in a row of pixels; -1 where there is none. */
const leftEdge = (pixels: Uint8ClampedArray, y: number): number => {
  for (let x = 0; x < 200; x++) if ((pixels[(y * 200 + x) * 4] ?? 0) > 127) return x;
  return -1;
};

const bar = (id: Id) =>
  newDrawing(
    BLANK,
    id,
    id === 'lead' ? 'Lead' : `Bar ${id}`,
    [newItem(`${id}r`, 'rectangle', { width: 30, height: 8 }), newItem(`${id}f`, 'fill', { color: '#FFFFFF' })],
    { position: [20, 10] },
  );
const names = ['1', '2', '3', '4', '5'];
const FOLLOW = 'lag({Lead / Position}, {Rig / Delay} * order) + [0, 20] * order';
const strip: readonly ((doc: Project) => Edit)[] = [
  () => addLayers('s', [bar('lead'), ...names.map(bar), newController(BLANK, 'rig', 'Rig')]),
  () => addKnob('s', 'rig', { ...newKnob('delay', 'number', 'Delay'), params: { value: { value: 0.12 } } }),
  () =>
    animate(at('lead', 'position'), [
      [4, [20, 10], { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 }],
      [30, [170, 10], { kind: 'hold' }],
    ]),
  () => makeSet('s', { id: 'bars', name: 'Bars', members: ['lead', ...names] }),
  ...names.map((id) => (doc: Project) => typed(doc, at(id, 'position'), FOLLOW)),
];

describe('a strip of bars', () => {
  it('is drawn with each bar where the lead was, order × delay before, 20 px lower', async () => {
    const draw = await drawing(built(strip));
    const frames = Array.from({ length: 60 }, (_, f) => draw(f));
    const edges = (f: number, k: number) => leftEdge(frames[f] as Uint8ClampedArray, 10 + 20 * k);
    expect(new Set(frames.map((_, f) => edges(f, 0))).size).toBeGreaterThan(15);
    for (let f = 0; f < 60; f++) {
      // 0.12 s is 3 frames.
      for (let k = 1; k <= 5; k++) expect([f, k, edges(f, k)]).toEqual([f, k, edges(Math.max(0, f - 3 * k), 0)]);
    }
  });
  it('follows a delay that is keyed while it runs', async () => {
    const keyed = [
      ...strip,
      () =>
        animate(at('rig', 'value', 'delay'), [
          [0, 0, { kind: 'hold' }],
          [20, 0.2],
        ]),
    ];
    const draw = await drawing(built(keyed));
    const lead = (f: number) => leftEdge(draw(f), 10);
    const third = (f: number) => leftEdge(draw(f), 70);
    expect([third(12), third(19)]).toEqual([lead(12), lead(19)]);
    // From frame 20 on the third is 0.2 × 3 × 25 = 15 frames late.
    expect([third(20), third(33), third(45)]).toEqual([lead(5), lead(18), lead(30)]);
  });
});

describe('a repeater with a delay for each copy', () => {
  it('gives the same pixels as layers that lag', async () => {
    const cards = (id: Id): Item[] => [
      newItem(`${id}e`, 'ellipse', { width: 10, height: 10 }),
      newItem(`${id}f`, 'fill', { color: '#FFB23E' }),
    ];
    const grow: Edit = animate(at('a', 'width', 'ae'), [
      [0, 6],
      [24, 40],
    ]);
    const repeated = built([
      () =>
        addLayers('s', [
          newDrawing(
            BLANK,
            'a',
            'Disc',
            [...cards('a'), newItem('r', 'repeater', { copies: 3, delay: 5, position: [55, 12] })],
            {
              position: [40, 40],
            },
          ),
        ]),
      () => grow,
    ]);
    const layers = ['a', 'b', 'c'];
    const single = built([
      () =>
        addLayers(
          's',
          layers
            .toReversed()
            .map((id) => newDrawing(BLANK, id, id === 'a' ? 'Disc' : id, cards(id), { position: [40, 40] })),
        ),
      () => grow,
      () => makeSet('s', { id: 'set', name: 'Discs', members: layers }),
      ...['b', 'c'].flatMap((id) => [
        (doc: Project) => typed(doc, at(id, 'width', `${id}e`), 'lag({Disc / Ellipse / Width}, frames(5) * order)'),
        (doc: Project) => typed(doc, at(id, 'position'), '{Disc / Position} + [55, 12] * order'),
      ]),
    ]);
    const [a, b] = [await drawing(repeated), await drawing(single)];
    for (const frame of [0, 3, 8, 14, 21, 30, 50]) expect(b(frame)).toEqual(a(frame));
  });
});

describe('a banner at another rate than its scene', () => {
  it('has the letters of every text that it computes between whole frames', async () => {
    const words = newDrawing(BLANK, 'w', 'Words', [newItem('t', 'text', { size: 20 }), newItem('f', 'fill')]);
    const scene = built([() => addLayers('s', [words]), (doc) => typed(doc, at('w', 'text', 't'), 'text(frame, 2)')]);
    const out = join(mkdtempSync(join(tmpdir(), 'kite-banner-')), 'banner.zip');
    const settings = { ...defaultSettings('html5', scene), rate: { num: 10, den: 1 } } as RenderSettings;
    await renderScene({ scene, stock: EMPTY_STOCK, settings, out });
    const script = strFromU8(unzipSync(readFileSync(out))['scene.js'] as Uint8Array);
    const banner = JSON.parse(script.slice(script.indexOf('{'), script.lastIndexOf(';'))) as {
      fonts: { [choice: string]: { shaped: { [text: string]: unknown } } };
    };
    const shaped = Object.keys(Object.values(banner.fonts)[0]?.shaped ?? {}).join('\n');
    // Frame 2.5 of the scene is the second of the banner.
    for (const number of ['0.00', '2.50', '57.50', '3.00']) expect(shaped).toContain(number);
  });
});
