/** Nests that set knobs of the scene they play: drawn on the server's canvas, and told where they cannot. */
import { checkProject } from '@kite/core/check/project';
import { newKnob, paramsOfKnob } from '@kite/core/document/knobs';
import { newController, newDrawing, newItem, newNest, newProject, newScene } from '@kite/core/document/make';
import { together } from '@kite/core/document/patches';
import {
  type DrawingLayer,
  type Id,
  KNOB_KINDS,
  type Layer,
  type Project,
  type Scene,
} from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { setFormula } from '@kite/core/edits/formulas';
import { addKnob, removeKnob } from '@kite/core/edits/knobs';
import { addLayers, copiesOf } from '@kite/core/edits/layers';
import { animate, setValue } from '@kite/core/edits/properties';
import { ownCopy, setKnobHere } from '@kite/core/edits/settings';
import { storedText } from '@kite/core/formula/refs';
import { needsOf } from '@kite/core/recipe/needs';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { turned } from '@kite/core/scene/turned';
import { wholeScene } from '@kite/core/scene/whole';
import { describe, expect, it } from 'vitest';
import { drawn } from './test/drawn';

const SIZE = { width: 60, height: 20, rate: { num: 25, den: 1 }, length: 10, background: null } as const;
const inner = newScene('in', 'Petal', { ...SIZE, width: 20 });
const outer = newScene('out', 'Flower', SIZE);
let ids = 0;
const makeId = () => `n${++ids}`;

/** A square in the colour of a knob, as wide as another says; three nests of it beside each other. */
const made = ((): Project => {
  const fill = newItem('f', 'fill');
  const square = newDrawing(inner, 'sq', 'Square', [newItem('r', 'rectangle', { width: 10, height: 10 }), fill]);
  const knobs = [newKnob('tone', 'color', 'Tone'), { ...newKnob('wide', 'number', 'Wide'), min: 2, max: 12 }];
  const doc = newProject('p', 'P', [outer, inner]);
  const edits = [
    addLayers('in', [square, newController(inner, 'rig', 'Rig')]),
    ...knobs.map((knob) => addKnob('in', 'rig', knob)),
    setValue({ scene: 'in', layer: 'rig', item: 'tone', key: 'value' }, '#FF0000', { write: 'curve', frame: 0 }),
    setValue({ scene: 'in', layer: 'rig', item: 'wide', key: 'value' }, 10, { write: 'curve', frame: 0 }),
  ];
  const rigged = applyEdit(doc, together('Rig', edits)).doc;
  const formula = (item: Id, key: string, text: string) => {
    const here = { layer: 'sq', item, key };
    return setFormula({ scene: 'in', ...here }, storedText(text, rigged.scenes.in as Scene, here));
  };
  const nests = [10, 30, 50].map((x, i) => newNest(outer, `u${i}`, `Use ${i}`, 'in', { position: [x, 10] }));
  const more = [formula('f', 'color', '{Rig / Tone}'), formula('r', 'width', '{Rig / Wide}'), addLayers('out', nests)];
  return applyEdit(rigged, together('Nest', more)).doc;
})();

const cardOf = (doc: Project, layer: Id) => {
  const { items } = doc.scenes.out?.layers[layer] as DrawingLayer;
  const nest = Object.values(items).find((item) => item.kind === 'nest');
  return { scene: 'out', layer, item: nest?.id as Id };
};
const knobIn = (doc: Project, id: Id) =>
  (doc.scenes.in?.layers.rig as Extract<Layer, { kind: 'controller' }>).knobs[id]!;
const set = (doc: Project, layer: Id, knob: Id, value: string | number, id = makeId()): Project =>
  applyEdit(doc, setKnobHere(cardOf(doc, layer), knobIn(doc, knob), value, id)).doc;
const whole = (doc: Project) => wholeScene(doc.scenes.out as Scene, doc);
const colors = (doc: Project, frame = 0) => {
  const { at } = drawn(whole(doc), { frame });
  return [10, 30, 50].map((x) => at(x, 10).slice(0, 3).join(' '));
};
const told = (doc: Project) =>
  compileScene(whole(doc), NO_LIBRARY)
    .at(0)
    .problems.map((p) => p.message);

describe('a nest that sets knobs of the scene inside', () => {
  const two = set(set(made, 'u1', 'tone', '#00FF00'), 'u2', 'tone', '#0000FF');
  it('shows its own, and the others what the scene has', () => {
    expect(colors(made)).toEqual(['255 0 0', '255 0 0', '255 0 0']);
    expect(colors(two)).toEqual(['255 0 0', '0 255 0', '0 0 255']);
    checkProject(two);
  });
  it('follows the scene in all that it does not set', () => {
    const wider = applyEdit(
      two,
      setValue({ scene: 'in', layer: 'rig', item: 'wide', key: 'value' }, 6, { write: 'curve', frame: 0 }),
    ).doc;
    expect(Math.round(drawn(whole(wider)).alpha)).toBe(3 * 6 * 10);
    expect(colors(wider)).toEqual(colors(two));
  });
  it('keeps within the limits of the knob', () => {
    expect(Math.round(drawn(whole(set(made, 'u0', 'wide', 500))).alpha)).toBe(12 * 10 + 2 * 100);
  });
  it('is keyed, and computed, as any card is', () => {
    const keyed = set(made, 'u1', 'tone', '#00FF00', 'own');
    const ref = { scene: 'out', layer: 'u1', item: 'own', key: 'value' };
    const moving = applyEdit(
      keyed,
      animate(ref, [
        [0, '#00FF00', { kind: 'hold' }],
        [5, '#FFFFFF'],
      ]),
    ).doc;
    expect([colors(moving, 4)[1], colors(moving, 5)[1]]).toEqual(['0 255 0', '255 255 255']);
    const wide = set(made, 'u1', 'wide', 4, 'w');
    const computed = applyEdit(wide, setFormula({ ...ref, item: 'w' }, 'frame + 4')).doc;
    expect([0, 3].map((frame) => Math.round(drawn(whole(computed), { frame }).alpha))).toEqual([240, 270]);
  });
  it('in a repeater reads the order of its copies', () => {
    const one = applyEdit(made, addLayers('out', [])).doc;
    const wide = set(one, 'u0', 'wide', 4, 'w');
    const card = cardOf(wide, 'u0');
    const repeated = applyEdit(
      wide,
      together('Repeat', [
        {
          label: 'Repeat',
          change: (draft) => {
            const layer = draft.scenes.out?.layers.u0;
            if (layer?.kind !== 'drawing') throw new Error('no drawing');
            layer.items.rep = newItem('rep', 'repeater', { copies: 3, position: [20, 0] }) as never;
            layer.recipe = [...layer.recipe, 'rep'];
            delete draft.scenes.out?.layers.u1;
            delete draft.scenes.out?.layers.u2;
            if (draft.scenes.out) draft.scenes.out.order = ['u0'];
          },
        },
        setFormula({ ...card, item: 'w', key: 'value' }, '4 + 2 * order'),
      ]),
    ).doc;
    // Wide by 4, 6 and 8, and 10 high.
    expect(Math.round(drawn(whole(repeated)).alpha)).toBe(180);
  });
  it('says of a knob that is gone, and plays on', () => {
    const gone = applyEdit(two, removeKnob('in', 'rig', 'wide')).doc;
    expect(told(gone).some((message) => message.includes('does not work'))).toBe(true);
    const setGone = applyEdit(set(made, 'u0', 'wide', 4), removeKnob('in', 'rig', 'wide')).doc;
    expect(told(setGone)).toContain('sets a knob that is gone');
    checkProject(setGone);
  });
  it('keeps its settings when it is copied, and when it gets a scene of its own', () => {
    const [copy] = copiesOf([two.scenes.out?.layers.u1 as Layer], makeId) as [Layer];
    const copied = applyEdit(two, addLayers('out', [{ ...copy, params: { position: { value: [10, 10] } } }])).doc;
    expect(colors(copied)[0]).toBe('0 255 0');
    const own = applyEdit(two, ownCopy(cardOf(two, 'u1'), 'in', makeId)).doc;
    expect([own.order.length, colors(own).join()]).toEqual([3, colors(two).join()]);
    const changed = applyEdit(
      own,
      setValue({ scene: 'in', layer: 'rig', item: 'wide', key: 'value' }, 6, { write: 'curve', frame: 0 }),
    ).doc;
    expect(Math.round(drawn(whole(changed)).alpha)).toBe(60 + 100 + 60);
  });
  it('once more for the same knob changes nothing', () => {
    const card = cardOf(two, 'u1');
    expect(applyEdit(two, setKnobHere(card, knobIn(two, 'tone'), '#FFFFFF', 'again')).doc).toBe(two);
  });
});

describe('knobs', () => {
  it.each(KNOB_KINDS)('of the kind %s are turned from outside, and kept as one scene for the same values', (kind) => {
    const knob = newKnob('k', kind, 'Knob');
    const rig = { ...newController(inner, 'rig', 'Rig'), knobs: { k: knob }, panel: ['k'] };
    const scene: Scene = { ...inner, layers: { rig }, order: ['rig'] };
    const value = paramsOfKnob(knob).value?.default as string;
    const other = turned(scene, { k: value });
    expect((other.layers.rig as typeof rig).knobs.k.params.value).toEqual({ value });
    expect([turned(scene, { k: value }) === other, turned(scene, {}) === scene]).toEqual([true, true]);
    // What is of another kind leaves it as it was.
    expect((turned(scene, { k: [] as never }).layers.rig as typeof rig).knobs.k.kind).toBe(kind);
  });
  it('of pictures and fonts take along what they name', () => {
    const knobs = [
      { ...newKnob('photo', 'picture', 'Photo'), params: { value: { value: 'lamp' } } },
      {
        ...newKnob('face', 'font', 'Face'),
        params: { value: { value: { family: 'Lora', weight: 400, italic: false } } },
      },
    ];
    const rig: Layer = {
      ...newController(inner, 'rig', 'Rig'),
      knobs: Object.fromEntries(knobs.map((knob) => [knob.id, knob])),
      panel: ['photo', 'face'],
    };
    expect([[...needsOf(rig).assets], needsOf(rig).fonts.map((f) => f.family)]).toEqual([['lamp'], ['Lora']]);
  });
});
