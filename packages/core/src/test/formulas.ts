/** For tests: a lead that moves unevenly, a rig with a delay and a step, five bars that follow in a set. */
import { checkProject } from '../check/project';
import { newKnob } from '../document/knobs';
import { newController, newDrawing, newItem, newProject, newScene } from '../document/make';
import { wholeScene } from '../scene/whole';
import type { Edit } from '../document/patches';
import { applyEdit } from '../edits/apply';
import type { Id, Project, PropertyRef, Scene } from '../document/types';
import { addKnob } from '../edits/knobs';
import { addLayers } from '../edits/layers';
import { setFormula } from '../edits/formulas';
import { animate } from '../edits/properties';
import { makeSet } from '../edits/sets';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { storedText, type Target } from '../formula/refs';

export const BLANK: Scene = newScene('s', 'Test', {
  width: 640,
  height: 480,
  rate: { num: 25, den: 1 },
  length: 100,
  background: null,
});
export const bar = (id: Id, name: string) =>
  newDrawing(BLANK, id, name, [
    newItem(`${id}r`, 'rectangle', { width: 40, height: 10 }),
    newItem(`${id}f`, 'fill', { color: '#FFB23E' }),
  ]);
const rig = newController(BLANK, 'rig', 'Rig');
export const ref = (layer: Id, key: string, item?: Id, part?: 0 | 1): PropertyRef => ({
  scene: 's',
  layer,
  key,
  ...(item !== undefined && { item }),
  ...(part !== undefined && { part }),
});
export const sceneOf = (doc: Project): Scene => doc.scenes.s as Scene;
export const done = (doc: Project, ...edits: readonly Edit[]): Project =>
  edits.reduce((now, edit) => {
    const { doc: next } = applyEdit(now, edit);
    checkProject(JSON.parse(JSON.stringify(next)));
    return next;
  }, doc);
export const applied = (edit: Edit) => (doc: Project) => applyEdit(doc, edit).doc;
/** A formula typed by its names. */
export const typed = (doc: Project, at: PropertyRef, text: string): Edit =>
  setFormula(at, storedText(text, sceneOf(doc), at as Target));
export const write = (doc: Project, at: PropertyRef, text: string): Project => done(doc, typed(doc, at, text));
export const programOf = (doc: Project) => compileScene(wholeScene(sceneOf(doc), doc), NO_LIBRARY);
export const valueAt = (doc: Project, at: PropertyRef, frame: number) => programOf(doc).wiring.sampler(at)?.at(frame);
export const messages = (doc: Project) => programOf(doc).problems.map((p) => p.message);

/** A lead that moves unevenly, a rig with a delay, five followers in a set. */
export const FOLLOW = 'lag({Lead bar / Position}, {Rig / Delay} * order) + [0, {Rig / Step}] * order';
export const followers = ['b1', 'b2', 'b3', 'b4', 'b5'];
export const strip = ((): Project => {
  const knob = (id: Id, name: string, value: number) => ({
    ...newKnob(id, 'number', name),
    params: { value: { value } },
  });
  let doc = done(
    newProject('p', 'Strip', [BLANK]),
    addLayers('s', [bar('lead', 'Lead bar'), ...followers.map((id, i) => bar(id, `Bar ${i + 1}`)), rig]),
    addKnob('s', 'rig', knob('delay', 'Delay', 0.2)),
    addKnob('s', 'rig', knob('step', 'Step', 20)),
    animate(ref('lead', 'position'), [
      [0, [0, 100], { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 }],
      [30, [400, 60], { kind: 'bezier', x1: 0.7, y1: 0, x2: 0.4, y2: 1 }],
      [60, [120, 300]],
    ]),
    makeSet('s', { id: 'set', name: 'Bars', members: ['lead', ...followers] }),
  );
  for (const id of followers) doc = write(doc, ref(id, 'position'), FOLLOW);
  return doc;
})();
