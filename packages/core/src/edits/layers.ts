/** Edits to the stack of layers of a scene. */
import type { MakeId } from '../document/make';
import { namesIn, naming } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Formulas, Id, Layer, Scene } from '../document/types';
import { type Here, retargeted } from '../formula/refs';
import { relinked } from '../recipe/needs';
import { withMembers } from '../scene/groups';
import { drawingIn, type ItemDraft, layerIn, type LayerDraft, sceneIn } from './find';
import { addItem, within } from './recipe';
import { leaveScene } from './sets';

/** Puts layers into the stack, the first in front, before the layer `at` (or at the front). */
export const addLayers = (sceneId: Id, layers: readonly Layer[], at?: Id): Edit => ({
  label: layers.length === 1 ? 'Add a layer' : 'Add layers',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const free = naming(namesIn(plain<Scene>(scene)));
    for (const layer of layers) scene.layers[layer.id] = { ...layer, name: free(layer.name) } as LayerDraft;
    const index = at === undefined ? 0 : Math.max(0, scene.order.indexOf(at));
    scene.order = [...scene.order.slice(0, index), ...layers.map((l) => l.id), ...scene.order.slice(index)];
  },
});

/** Groups go with their members; what else had a removed layer for a parent stands free. */
export const removeLayers = (sceneId: Id, ids: readonly Id[]): Edit => ({
  label: ids.length === 1 ? 'Delete a layer' : 'Delete layers',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const id of ids) layerIn(scene, id);
    leaveScene(scene, new Set(withMembers(plain<Scene>(scene), ids)));
  },
});

type LayerFields = Partial<
  Pick<Layer, 'name' | 'from' | 'to' | 'locked' | 'tucked' | 'hidden' | 'tag' | 'blend' | 'parent'>
>;

const LABELS: { readonly [K in keyof LayerFields]-?: string } = {
  name: 'Rename a layer',
  from: 'Trim a layer',
  to: 'Trim a layer',
  locked: 'Lock or unlock',
  tucked: 'Tuck away or bring back',
  hidden: 'Show or hide',
  tag: 'Change a tag',
  blend: 'Change a blend mode',
  parent: 'Change a parent',
};

export const setLayers = (sceneId: Id, ids: readonly Id[], fields: LayerFields): Edit => ({
  label: LABELS[Object.keys(fields)[0] as keyof LayerFields],
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const id of ids) Object.assign(layerIn(scene, id), fields);
  },
});

/** Moves layers in the stack so that they stand, in their order, at `index` of the stack without them. */
export const moveLayers = (sceneId: Id, ids: readonly Id[], index: number): Edit => ({
  label: 'Reorder layers',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const moving = new Set(ids);
    const rest = scene.order.filter((id) => !moving.has(id));
    const inOrder = scene.order.filter((id) => moving.has(id));
    scene.order = [...rest.slice(0, index), ...inOrder, ...rest.slice(index)];
  },
});

/** The new ids of what was copied: of a layer, and of its cards or knobs. */
interface Renewed {
  readonly id: Id;
  readonly parts: ReadonlyMap<Id, Id>;
}

/** References to what was copied along lead to the copies; others lead where they led. */
const copyFormulas = (formulas: Formulas, renewed: ReadonlyMap<Id, Renewed>, here: Here): Formulas =>
  Object.fromEntries(
    Object.entries(formulas).map(([key, formula]) => {
      const text = retargeted(
        formula.text,
        (target, own) => {
          const copy = renewed.get(own ? here.layer : target.layer);
          if (!copy) return target;
          const item = target.item === undefined ? undefined : (copy.parts.get(target.item) ?? target.item);
          return { ...target, layer: copy.id, ...(item !== undefined && { item }) };
        },
        here,
        { ...here, layer: renewed.get(here.layer)?.id ?? here.layer },
      );
      return [key, { ...formula, text }];
    }),
  );

/**
 * Copies of layers with ids of their own, unless others are given, in the same order. Parents and mattes among them are the
 * copies; others stay.
 */
export const copiesOf = (layers: readonly Layer[], makeId: MakeId, idOf: (layer: Id) => Id = makeId): Layer[] => {
  const renewed = new Map(
    layers.map((l): [Id, Renewed] => {
      const parts = l.kind === 'drawing' ? l.items : l.kind === 'controller' ? l.knobs : {};
      return [l.id, { id: idOf(l.id), parts: new Map(Object.keys(parts).map((id) => [id, makeId()])) }];
    }),
  );
  return layers.map((layer) => {
    const { id, parts } = renewed.get(layer.id) as Renewed;
    const fresh = (old: Id) => parts.get(old) ?? old;
    const copied = <T extends { readonly formulas?: Formulas }>(holder: T): T =>
      holder.formulas
        ? { ...holder, formulas: copyFormulas(holder.formulas, renewed, { layer: layer.id, key: '' }) }
        : holder;
    const own = {
      id,
      parent: layer.parent === null ? null : (renewed.get(layer.parent)?.id ?? layer.parent),
    };
    if (layer.kind === 'controller') {
      const knobs = layer.panel.flatMap((old) => layer.knobs[old] ?? []);
      return {
        ...copied(layer),
        ...own,
        knobs: Object.fromEntries(knobs.map((knob) => [fresh(knob.id), { ...copied(knob), id: fresh(knob.id) }])),
        panel: knobs.map((knob) => fresh(knob.id)),
      };
    }
    const items = Object.values(layer.items).map((item) => ({
      ...copied(item),
      id: fresh(item.id),
      ...(item.children && { children: item.children.map(fresh) }),
    }));
    const copy: DrawingLayer = {
      ...copied(layer),
      ...own,
      items: Object.fromEntries(items.map((item) => [item.id, item])),
      recipe: layer.recipe.map(fresh),
      moves: layer.moves.map((move) => ({
        ...move,
        ...(move.trims && { trims: move.trims.map(fresh) }),
        ...(move.wipe !== undefined && { wipe: fresh(move.wipe) }),
      })),
    };
    return relinked(copy, 'layer', (id) => renewed.get(id)?.id ?? id);
  });
};

/** The layers with these ids, front to back. */
export const layersOf = (scene: Scene, ids: readonly Id[]): Layer[] => {
  const wanted = new Set(ids);
  return scene.order.filter((id) => wanted.has(id)).map((id) => layerIn(scene, id));
};

/** Cards with all that stands in them, to be pasted: a drawing that has nothing else. */
export const cardsAlone = (layer: DrawingLayer, cards: readonly Id[]): DrawingLayer => ({
  ...layer,
  items: Object.fromEntries(cards.flatMap((card) => within(layer.items, card)).map((item) => [item.id, item])),
  recipe: cards,
});

/**
 * Puts copies of cards that stand alone into a recipe, from an index of a group on. What they read in each other they read in
 * the copies, and what they read in their layer in the one that they come into.
 */
export const pasteCards = (
  sceneId: Id,
  layerId: Id,
  alone: DrawingLayer,
  group: Id | null,
  index: number,
  makeId: MakeId,
): Edit => ({
  label: alone.recipe.length === 1 ? 'Paste a card' : 'Paste cards',
  change: (draft) => {
    const [copy] = copiesOf([alone], makeId, () => layerId) as [DrawingLayer];
    copy.recipe.forEach((card, i) => {
      const [root, ...inner] = within(copy.items, card);
      if (!root) return;
      addItem(sceneId, layerId, root, group, index + i).change(draft);
      const layer = drawingIn(draft, sceneId, layerId);
      for (const item of inner) layer.items[item.id] = item as ItemDraft;
    });
  },
});
