import { describe, expect, it } from 'vitest';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { BrushStroke, DrawingLayer, Id, Item, PictureAsset, Project } from '../document/types';
import { LIMITS } from '../document/limits';
import { checkProject } from '../check/project';
import type { Edit } from '../document/patches';
import { celAt } from '../recipe/groups/cels';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { applyEdit } from './apply';
import { addAsset } from './assets';
import {
  addCel,
  celAtPlayhead,
  celFrames,
  celShown,
  celsIn,
  clearCels,
  holdCels,
  hurryCels,
  newCels,
  repeatCels,
  reverseCels,
} from './cels';
import { setValue } from './properties';
import { addItem } from './recipe';
import { addStroke, pressedIn } from './strokes';
import { testStroke as stroke } from '../test/strokes';

const SCENE = newScene('s', 'Drawn', {
  width: 200,
  height: 200,
  rate: { num: 25, den: 1 },
  length: 60,
  background: null,
});
const picture = (id: Id): PictureAsset => ({
  id,
  kind: 'picture',
  name: id,
  sha: 'a'.repeat(64),
  type: 'image/png',
  width: 8,
  height: 8,
  bytes: 100,
});
/** A layer with one empty cel, and what edits do to it. */
const drawn = () => {
  const makeId = countingIds('c');
  const layer = newDrawing(SCENE, 'l', 'Smoke', newCels(makeId, 0));
  let doc: Project = newProject('p', 'P', [{ ...SCENE, layers: { l: layer }, order: ['l'] }]);
  const cels = layer.recipe[0] as Id;
  const ref = { scene: 's', layer: 'l', item: cels };
  const now = () => doc.scenes.s!.layers.l as DrawingLayer;
  const edit = (by: Edit) => {
    doc = checkProject(applyEdit(doc, by).doc);
  };
  return {
    makeId,
    ref,
    now,
    list: () => celsIn(now(), cels),
    frames: () => celFrames(now(), cels, 0),
    do: edit,
    draw(id: Id, more?: Partial<BrushStroke>, stamp?: Id) {
      edit(addStroke({ ...ref, item: id }, stroke(more), makeId, stamp));
    },
    marksAt: (frame: number) => compileScene(doc.scenes.s!, NO_LIBRARY).marksAt('l', frame),
  };
};

describe('which cel shows', () => {
  const timed = { by: 'time', start: 4, ends: 'hold', again: 1, cel: 1 } as const;
  const over = (ends: 'hold' | 'loop' | 'swing' | 'gone', again = 1) =>
    Array.from({ length: 14 }, (_, frame) => celAt({ ...timed, ends, again }, [1, 2, 3], frame + 3));
  it('is told by the frames that each is held', () => {
    expect(over('hold')).toEqual([null, 0, 1, 1, 2, 2, 2, 2, 2, 2, 2, 2, 2, 2]);
    expect(over('gone')).toEqual([null, 0, 1, 1, 2, 2, 2, null, null, null, null, null, null, null]);
    expect(over('loop')).toEqual([null, 0, 1, 1, 2, 2, 2, 0, 1, 1, 2, 2, 2, 0]);
    expect(over('swing')).toEqual([null, 0, 1, 1, 2, 2, 2, 1, 1, 0, 1, 1, 2, 2]);
  });
  it('begins anew from any of them', () => {
    expect(over('loop', 2)).toEqual([null, 0, 1, 1, 2, 2, 2, 1, 1, 2, 2, 2, 1, 1]);
    expect(over('swing', 2)).toEqual(over('loop', 2));
    expect(over('loop', 3)).toEqual([null, 0, 1, 1, ...Array<number>(10).fill(2)]);
    expect(over('loop', 9)).toEqual(over('loop', 3));
    expect(over('hold', 2)).toEqual(over('hold'));
  });
  it('or by a number, the first and the last beyond them', () => {
    const by = (cel: number) => celAt({ ...timed, by: 'number', cel }, [1, 2, 3], 0);
    expect([by(0), by(1), by(1.99), by(2), by(3), by(9)]).toEqual([0, 0, 0, 1, 2, 2]);
    expect(celAt(timed, [], 5)).toBeNull();
  });
});

describe('cels', () => {
  it('go on from any card that stands among them, which becomes one', () => {
    const it = drawn();
    const [first] = it.list() as [Id];
    it.draw(first);
    it.do(addItem('s', 'l', newItem('star', 'star'), it.ref.item));
    it.do(addItem('s', 'l', newItem('fill', 'fill')));
    it.do(addCel(it.ref, 'star', it.makeId, { begins: 'copy', hold: 3, taken: 1 }));
    const [, star, cel] = it.list().map((id) => it.now().items[id] as Item);
    expect([star?.kind, star?.params.hold, cel?.kind, cel?.params.hold]).toEqual([
      'star',
      undefined,
      'cel',
      { value: 3 },
    ]);
    expect(cel?.children?.map((id) => it.now().items[id]?.kind)).toEqual(['star']);
    expect(it.marksAt(5)).toEqual(it.marksAt(3));
  });
  it('are drawn one after another, each going on from the one before it', () => {
    const it = drawn();
    const [first] = it.list() as [Id];
    it.draw(first);
    it.do(addCel(it.ref, first, it.makeId, { begins: 'copy', hold: 3 }));
    const [, second] = it.list() as [Id, Id];
    it.draw(second, { color: '#2EC4B6' });
    expect([0, 1, 2, 4, 50].map((frame) => it.marksAt(frame).length)).toEqual([1, 1, 2, 2, 2]);
    expect(it.frames()).toEqual([0, 2, 5]);
    expect(celShown(it.now(), it.ref.item, { by: 'time', start: 0, ends: 'hold', again: 1, cel: 1 }, 2)).toBe(second);
    it.do(reverseCels(it.ref));
    expect(it.list()).toEqual([second, first]);
    it.do(holdCels(it.ref, it.list(), 4));
    expect(it.frames()).toEqual([0, 4, 8]);
    it.do(clearCels(it.ref, [second]));
    expect([0, 4].map((frame) => it.marksAt(frame).length)).toEqual([0, 1]);
  });

  it('are put in where the playhead stands: what is held is divided', () => {
    const it = drawn();
    const [first] = it.list() as [Id];
    it.do(holdCels(it.ref, [first], 10));
    it.do(addCel(it.ref, first, it.makeId, { begins: 'empty', hold: 6, taken: 6 }));
    expect(it.frames()).toEqual([0, 4, 10]);
  });

  it('begin at the playhead: in what is held, after what begins there, or after all', () => {
    const it = drawn();
    const next = (frame: number) => {
      const { edit, frame: begins } = celAtPlayhead(it.ref, it.now(), { frame, start: 0 }, 'copy', it.makeId);
      it.do(edit);
      return begins;
    };
    expect([next(0), it.frames()]).toEqual([2, [0, 2, 4]]);
    expect([next(3), it.frames()]).toEqual([3, [0, 2, 3, 4]]);
    expect([next(10), it.frames()]).toEqual([10, [0, 2, 3, 10, 11]]);
    expect([next(6), it.frames()]).toEqual([6, [0, 2, 3, 6, 10, 11]]);
  });

  it('are repeated and go back again as copies of their own', () => {
    const it = drawn();
    const [first] = it.list() as [Id];
    it.draw(first);
    it.do(addCel(it.ref, first, it.makeId, { begins: 'empty' }));
    it.do(addCel(it.ref, it.list()[1]!, it.makeId, { begins: 'empty' }));
    it.do(repeatCels(it.ref, it.list(), true, it.makeId));
    expect(it.list()).toHaveLength(5);
    expect(it.frames()).toEqual([0, 2, 4, 6, 8, 10]);
    // The last of them is the first once more.
    expect(it.marksAt(8)).toEqual(it.marksAt(0));
    it.draw(it.list()[4]!, { color: '#FF5D5D' });
    expect([it.marksAt(0).length, it.marksAt(8).length]).toEqual([1, 2]);
    it.do(repeatCels(it.ref, it.list().slice(0, 2), false, it.makeId));
    expect(it.list()).toHaveLength(7);
    expect(it.marksAt(4)).toEqual(it.marksAt(0));
  });

  it('draws with a picture into a card of that picture, and with others into the same', () => {
    const { do: edit, list, draw, now } = drawn();
    const [first] = list() as [Id];
    for (const id of ['leaf', 'dots']) edit(addAsset(picture(id)));
    const brushes = () =>
      now().items[first]!.children!.map((id) => {
        const { stamp, strokes } = now().items[id]!.params as Record<string, { value: readonly unknown[] }>;
        return [stamp?.value, strokes?.value.length];
      });
    draw(first);
    draw(first, { tip: 'own' }, 'leaf');
    draw(first, { tip: 'chalk', opacity: 0.5, seed: 3 });
    expect(brushes()).toEqual([['leaf', 3]]);
    draw(first, { tip: 'own' }, 'dots');
    draw(first, { tip: 'own' }, 'dots');
    expect(brushes()).toEqual([
      ['leaf', 3],
      ['dots', 2],
    ]);
  });

  it('press a picture as the card does that they will be in', () => {
    const { do: edit, list, draw, now, ref } = drawn();
    const [first] = list() as [Id];
    edit(addAsset(picture('leaf')));
    edit(addAsset(picture('dots')));
    draw(first, { tip: 'own' }, 'leaf');
    const brush = now().items[first]!.children![0]!;
    edit(setValue({ ...ref, item: brush, key: 'every' }, 0.5, { write: 'curve', frame: 0 }));
    expect(pressedIn(now(), first, 'leaf').every).toBe(0.5);
    // Another picture gets a card of its own, which is new.
    expect(pressedIn(now(), first, 'dots').every).toBe(0.15);
    expect(pressedIn(null, '', 'leaf')).toEqual({ every: 0.15, turns: true });
  });

  it('begins with a card that stands behind its brush', () => {
    const { do: edit, list, now, ref, makeId } = drawn();
    const ground = newItem('ground', 'group');
    edit(
      addCel(ref, list()[0]!, makeId, { begins: [{ ...ground, children: ['photo'] }, newItem('photo', 'picture')] }),
    );
    const made = now().items[list()[1]!]!;
    expect(made.children!.map((id) => now().items[id]!.kind)).toEqual(['group', 'brush']);
    expect(now().items.ground!.children).toEqual(['photo']);
  });

  it('take as many strokes as a card may have, and say so', () => {
    const makeId = countingIds('c');
    const cards = newCels(makeId, 0);
    const brush = cards[2]!;
    const full = {
      ...brush,
      params: { strokes: { value: Array.from({ length: LIMITS.brushStrokes }, () => stroke()) } },
    };
    const layer = newDrawing(SCENE, 'l', 'Full', [cards[0]!, cards[1]!, full]);
    const doc = checkProject(newProject('p', 'P', [{ ...SCENE, layers: { l: layer }, order: ['l'] }]));
    const ref = { scene: 's', layer: 'l', item: brush.id };
    expect(() => applyEdit(doc, addStroke(ref, stroke(), makeId))).toThrow(`at most ${LIMITS.brushStrokes} strokes`);
  });

  it('come in larger pieces from one on, and end with the whole', () => {
    const it = drawn();
    const [first] = it.list() as [Id];
    it.draw(first);
    for (let n = 0; n < 7; n++) {
      it.do(addCel(it.ref, it.list().at(-1)!, it.makeId, { begins: 'copy' }));
      it.draw(it.list().at(-1)!);
    }
    const drawnIn = () => it.list().map((_, i) => it.marksAt(2 * i).length);
    expect(drawnIn()).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    it.do(hurryCels(it.ref, it.list()[2]!));
    expect(drawnIn()).toEqual([1, 2, 3, 5, 7, 8]);
    it.do(hurryCels(it.ref, it.list()[3]!));
    expect(drawnIn()).toEqual([1, 2, 3, 5, 8]);
    expect(Object.values(it.now().items).filter(({ kind }) => kind === 'cel')).toHaveLength(5);
  });

  it('refuse more than a layer has room for, and lose nothing', () => {
    const it = drawn();
    const [first] = it.list() as [Id];
    for (let n = 0; n < 11; n++) it.do(repeatCels(it.ref, it.list(), false, it.makeId));
    expect(it.list()).toHaveLength(2_048);
    const before = it.now();
    expect(() => it.do(repeatCels(it.ref, it.list(), false, it.makeId))).toThrow(`more than ${LIMITS.items} cards`);
    expect(it.now()).toBe(before);
    it.draw(first);
    expect(it.marksAt(0)).toHaveLength(1);
  });

  it('have what is erased taken from what is drawn before it, and not from what comes after', () => {
    const it = drawn();
    const [first] = it.list() as [Id];
    it.draw(first);
    it.draw(first, { erases: true });
    it.draw(first, { color: '#2EC4B6' });
    const [erased, over] = it.marksAt(0);
    expect(erased).toMatchObject({ op: 'group', cuts: [{ mode: 'hide' }] });
    expect(over).toMatchObject({ op: 'fill', ink: { color: '#2EC4B6' } });
  });
});
