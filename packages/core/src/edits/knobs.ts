/** Edits to the knobs of controllers. */
import type { Edit } from '../document/patches';
import { type Id, isApart, type Knob, type Property, type Value } from '../document/types';
import { mappedValues } from '../motion/keys';
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

/** Another name, or other limits: values outside of them are brought to the nearest. */
export const setKnob = (scene: Id, layer: Id, id: Id, fields: Partial<Pick<Knob, 'name' | 'min' | 'max'>>): Edit => ({
  label: fields.name === undefined ? 'Change the limits of a knob' : 'Rename a knob',
  change: (draft) => {
    const knob = controllerIn(draft, scene, layer).knobs[id];
    if (!knob) throw new NotFound('knob', id);
    Object.assign(knob, fields);
    if (knob.max < knob.min) knob.max = knob.min;
    const fit = (value: Value): Value =>
      typeof value === 'number' ? Math.min(knob.max, Math.max(knob.min, value)) : value;
    const value = knob.params.value && (JSON.parse(JSON.stringify(knob.params.value)) as Property);
    // The parts of a point have no limits.
    if (value && !isApart(value))
      knob.params.value = mappedValues(value, 0, fit) as NonNullable<typeof knob.params.value>;
  },
});

export const moveKnob = (scene: Id, layer: Id, id: Id, to: number): Edit => ({
  label: 'Reorder knobs',
  change: (draft) => {
    const controller = controllerIn(draft, scene, layer);
    const rest = controller.panel.filter((other) => other !== id);
    controller.panel = [...rest.slice(0, to), id, ...rest.slice(to)];
  },
});
