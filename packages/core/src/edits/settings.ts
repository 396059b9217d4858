/** Settings of nests: values of their own for knobs of the scene that they play; and a scene of their own. */
import { type MakeId, newItem } from '../document/make';
import type { Edit } from '../document/patches';
import type { Id, Knob, Value } from '../document/types';
import { nest } from '../recipe/sources/nest';
import { settingOf } from '../recipe/settings';
import { drawingIn, itemIn, type ItemDraft, NotFound } from './find';
import type { CardRef } from './recipe';
import { duplicateScene } from './scenes';

/** Lets a nest have a value of its own for a knob of the scene inside; where it has one already, nothing changes. */
export const setKnobHere = ({ scene, layer: layerId, item }: CardRef, knob: Knob, value: Value, id: Id): Edit => ({
  label: 'Set a knob of a nest',
  change: (draft) => {
    const layer = drawingIn(draft, scene, layerId);
    const card = itemIn(layer, item);
    if (card.kind !== nest.kind) throw new NotFound('nest', item);
    const own = card.children ?? [];
    if (own.some((child) => layer.items[child]?.sets === knob.id)) return;
    const setting = { ...newItem(id, settingOf(knob.kind), { value }), name: knob.name, sets: knob.id };
    layer.items[id] = setting as ItemDraft;
    card.children = [...own, id];
  },
});

/** A copy of the scene that a nest plays, for this nest alone. */
export const ownCopy = ({ scene, layer, item }: CardRef, inner: Id, makeId: MakeId): Edit => ({
  label: 'Make it a scene of its own',
  change: (draft) => {
    const card = itemIn(drawingIn(draft, scene, layer), item);
    if (card.kind !== nest.kind) throw new NotFound('nest', item);
    const copy = makeId();
    duplicateScene(inner, copy).change(draft);
    card.params.scene = { value: copy };
  },
});
