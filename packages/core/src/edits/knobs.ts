/** Edits to the knobs of controllers. */
import { movedTo } from '../document/lists';
import type { Edit } from '../document/patches';
import type { Id, Knob } from '../document/types';
import { controllerIn, type KnobDraft, NotFound } from './find';

export const addKnob = (scene: Id, layer: Id, knob: Knob): Edit => ({
  label: 'Add a knob',
  change: (draft) => {
    const controller = controllerIn(draft, scene, layer);
    controller.knobs[knob.id] = knob as KnobDraft;
    controller.panel = [...controller.panel, knob.id];
  },
});

export const removeKnob = (scene: Id, layer: Id, id: Id): Edit => ({
  label: 'Remove a knob',
  change: (draft) => {
    const controller = controllerIn(draft, scene, layer);
    if (!controller.knobs[id]) throw new NotFound('knob', id);
    delete controller.knobs[id];
    controller.panel = controller.panel.filter((other) => other !== id);
  },
});

/** Another name, or other limits: as after every edit, values outside of them are brought to the nearest. */
export const setKnob = (scene: Id, layer: Id, id: Id, fields: Partial<Pick<Knob, 'name' | 'min' | 'max'>>): Edit => ({
  label: fields.name === undefined ? 'Change the limits of a knob' : 'Rename a knob',
  change: (draft) => {
    const knob = controllerIn(draft, scene, layer).knobs[id];
    if (!knob) throw new NotFound('knob', id);
    Object.assign(knob, fields);
  },
});

export const moveKnob = (scene: Id, layer: Id, id: Id, to: number): Edit => ({
  label: 'Reorder knobs',
  change: (draft) => {
    const controller = controllerIn(draft, scene, layer);
    controller.panel = movedTo(controller.panel, id, to);
  },
});
