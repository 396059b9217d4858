/** A drawing taken apart: a layer for each of the groups at the top of its recipe. */
import { type MakeId, namesIn, naming } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id, Scene } from '../document/types';
import type { Target } from '../formula/refs';
import { drawingIn, type LayerDraft, sceneIn } from './find';
import { type Lead, layerLed, leadAll } from './leading';
import { within } from './recipe';
import { leaveScene } from './sets';

/** The groups at the top of a recipe that paint by themselves; none where other cards work on them too. */
export const groupsOf = (layer: Pick<DrawingLayer, 'recipe' | 'items'>): readonly Id[] => {
  const groups = layer.recipe.filter((id) => layer.items[id]?.kind === 'group');
  return groups.length > 1 && groups.length === layer.recipe.length ? groups : [];
};

/** Each group becomes a layer in its place, called by the group, with the timing and keyframes of the whole. */
export const takeApart = (sceneId: Id, layerId: Id, makeId: MakeId): Edit => ({
  label: 'Take apart',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const layer = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
    const groups = groupsOf(layer);
    if (groups.length === 0) throw new RangeError(`“${layer.name}” has no groups to take apart`);
    const free = naming(namesIn(plain<Scene>(scene)));
    // What read a card reads it where it is now.
    const now = new Map<Id, Id>();
    const lead = (target: Target): Target => {
      const layerNow = target.layer === layerId ? now.get(target.item ?? '') : undefined;
      return layerNow === undefined ? target : { ...target, layer: layerNow };
    };
    const parts = groups.map((id): DrawingLayer => {
      const inside = within(layer.items, id);
      const part = makeId();
      for (const item of inside) now.set(item.id, part);
      const name = free(layer.items[id]?.name ?? layer.name);
      const items = Object.fromEntries(inside.map((item) => [item.id, item]));
      return { ...layer, id: part, name, items, recipe: [id] };
    });
    /** The place of the whole is that of each part. */
    const leadIn =
      (part: Id): Lead =>
      (target) =>
        target.layer === layerId && target.item === undefined ? { ...target, layer: part } : lead(target);
    const made = parts.map((part) => layerLed(part, leadIn(part.id), layerId));
    for (const one of made) scene.layers[one.id] = one as LayerDraft;
    // What a recipe draws later lies in front.
    const ids = made.map((l) => l.id).reverse();
    const index = scene.order.indexOf(layerId);
    scene.order = [...scene.order.slice(0, index), ...ids, ...scene.order.slice(index + 1)];
    for (const other of Object.values(scene.layers)) if (other.parent === layerId) other.parent = ids[0] ?? null;
    leaveScene(scene, new Set([layerId]));
    leadAll(scene, leadIn(ids[0] as Id));
  },
});
