/** A drawing taken apart: a layer for each of the groups at the top of its recipe. */
import { type MakeId, uniqueName } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id } from '../document/types';
import { drawingIn, type LayerDraft, sceneIn } from './find';
import { copiesOf } from './layers';
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
    const taken = Object.values(scene.layers).map((l) => l.name);
    const made = groups.map((id): DrawingLayer => {
      const items = Object.fromEntries(within(layer.items, id).map((item) => [item.id, item]));
      const [copy] = copiesOf([{ ...layer, items, recipe: [id] }], makeId) as [DrawingLayer];
      const name = uniqueName(layer.items[id]?.name ?? layer.name, taken);
      taken.push(name);
      return { ...copy, name };
    });
    for (const one of made) scene.layers[one.id] = one as LayerDraft;
    // What a recipe draws later lies in front.
    const ids = made.map((l) => l.id).reverse();
    const index = scene.order.indexOf(layerId);
    scene.order = [...scene.order.slice(0, index), ...ids, ...scene.order.slice(index + 1)];
    for (const other of Object.values(scene.layers)) if (other.parent === layerId) other.parent = ids[0] ?? null;
    leaveScene(scene, new Set([layerId]));
  },
});
