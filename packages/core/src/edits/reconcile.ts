/** Lists and maps that fell apart when two people's edits met, put together again. */
import type { Edit, ProjectDraft } from '../document/patches';
import type { Id } from '../document/types';

/** The list without what is gone, and with what it misses in front. */
const agreeing = (order: readonly Id[], map: object): Id[] => {
  const known = order.filter((id, i) => Object.hasOwn(map, id) && order.indexOf(id) === i);
  const missing = Object.keys(map).filter((id) => !known.includes(id));
  return [...missing, ...known];
};

const same = (a: readonly Id[], b: readonly Id[]) => a.length === b.length && a.every((id, i) => id === b[i]);

type DrawingDraft = Extract<ProjectDraft['scenes'][Id]['layers'][Id], { kind: 'drawing' }>;

/** Every card stands in one place: what has lost its own, since its group is gone, goes to the end of the recipe. */
const placeCards = (layer: DrawingDraft): void => {
  const seen = new Set<Id>();
  const fitting = (ids: Id[]): Id[] =>
    ids.filter((id) => {
      const item = layer.items[id];
      if (!item || seen.has(id)) return false;
      seen.add(id);
      place(item);
      return true;
    });
  const place = (item: DrawingDraft['items'][Id]): void => {
    if (!item.children) return;
    const children = fitting(item.children);
    if (!same(children, item.children)) item.children = children;
  };
  const recipe = fitting(layer.recipe);
  const inSome = new Set(Object.values(layer.items).flatMap((item) => item.children ?? []));
  const astray = Object.keys(layer.items).filter((id) => !seen.has(id));
  const placed = [...recipe, ...fitting(astray.filter((id) => !inSome.has(id))), ...fitting(astray)];
  if (!same(placed, layer.recipe)) layer.recipe = placed;
};

/** A layer is in one set at the most, and sets name what is there. */
const placeInSets = (scene: ProjectDraft['scenes'][Id]): void => {
  const seen = new Set<Id>();
  for (const set of scene.sets) {
    const members = set.members.filter((id) => scene.layers[id] && !seen.has(id) && seen.add(id));
    if (!same(members, set.members)) set.members = members;
    const parts = set.word?.parts.filter((id) => members.includes(id));
    if (set.word && parts && !same(parts, set.word.parts)) set.word.parts = parts;
  }
};

/** After this every scene, layer, card and knob stands in its list once, and nobody's parent is gone. */
export const reconcileIn = (draft: ProjectDraft): void => {
  const scenes = agreeing(draft.order, draft.scenes);
  if (!same(scenes, draft.order)) draft.order = scenes;
  for (const scene of Object.values(draft.scenes)) {
    const layers = agreeing(scene.order, scene.layers);
    if (!same(layers, scene.order)) scene.order = layers;
    for (const layer of Object.values(scene.layers)) {
      if (layer.parent !== null && !scene.layers[layer.parent]) layer.parent = null;
      if (layer.kind === 'drawing') placeCards(layer);
      else {
        const panel = agreeing(layer.panel, layer.knobs);
        if (!same(panel, layer.panel)) layer.panel = panel;
      }
    }
    placeInSets(scene);
  }
};

export const reconcile = (): Edit => ({ label: 'Bring together edits made in two places', change: reconcileIn });
