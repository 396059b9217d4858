/** Drawings joined into one: a group of its recipe for each, in its place, keyframes and formulas too. */
import { type MakeId, newDrawing, newItem } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id, Item, Layer, Point, Scene } from '../document/types';
import type { Target } from '../formula/refs';
import { group as groupKind } from '../recipe/groups/group';
import { needsOf } from '../recipe/needs';
import { layersCutBy } from '../scene/follows';
import { drawingIn, type LayerDraft, sceneIn } from './find';
import { layerLed, leadAll } from './leading';
import { type AsShown, reparent, withoutDepth } from './place';
import { leaveScene } from './sets';

/** Why a drawing cannot be a part of another one; null where it can. */
const hindrance = (scene: Scene, layer: DrawingLayer, first: DrawingLayer): string | null => {
  if (needsOf(layer).asks.behind) return 'shows what is behind it, which cards do not';
  if (layersCutBy(scene, layer.id).length > 0) return 'cuts other layers, which cards do not';
  if (layer.from !== first.from || layer.to !== first.to) {
    return `shows from ${layer.from} to ${layer.to - 1}, “${first.name}” from ${first.from} to ${first.to - 1}: give them one time first`;
  }
  return null;
};

/**
 * Joins drawings into one that stands where the front one stood, with its name and its parent; its pivot is at a point of that
 * parent. The picture stays as it is, as far as nothing else stood between them. What hung from them hangs from the joined one, and what
 * read them reads its groups.
 * @throws RangeError where one of them does what cards do not.
 */
export const joinLayers = (
  sceneId: Id,
  ids: readonly Id[],
  pivot: Point,
  frame: number,
  makeId: MakeId,
  shown?: AsShown,
): Edit => ({
  label: 'Join drawings',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const whole = plain<Scene>(scene);
    const joining = new Set(ids);
    const order = whole.order.filter((id) => joining.has(id));
    const [front, ...others] = order.map((id) => plain<DrawingLayer>(drawingIn(draft, sceneId, id)));
    if (!front || others.length === 0) throw new RangeError('two drawings at least are joined');
    for (const layer of [front, ...others]) {
      const why = hindrance(whole, layer, front);
      if (why !== null) throw new RangeError(`“${layer.name}” ${why}`);
    }
    // One that hangs from another of them is freed from it first.
    let parent = front.parent;
    while (parent !== null && joining.has(parent)) parent = scene.layers[parent]?.parent ?? null;
    const id = makeId();
    const groups = new Map(order.map((layer) => [layer, makeId()]));
    const hanging = Object.values(whole.layers)
      .filter((layer) => !joining.has(layer.id) && joining.has(layer.parent ?? ''))
      .map((layer) => layer.id);
    for (const layer of order) reparent(scene, layer, parent, frame, shown);
    // Cards of different layers may have the same id.
    const fresh = new Map(
      order.flatMap((layer) =>
        Object.keys(drawingIn(draft, sceneId, layer).items).map((card) => [`${layer}/${card}`, makeId()] as const),
      ),
    );
    const now = (layer: Id, card: Id): Id => fresh.get(`${layer}/${card}`) ?? card;
    const lead = ({ layer, item, key }: Target): Target => {
      const group = groups.get(layer);
      if (group === undefined) return { layer, key, ...(item !== undefined && { item }) };
      return { layer: id, item: item === undefined ? group : now(layer, item), key };
    };
    // What stood behind is drawn first.
    const items = order.toReversed().flatMap((layerId): Item[] => {
      const layer = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
      const group: Item = {
        ...newItem(groups.get(layerId) as Id, groupKind.kind),
        name: layer.name,
        on: !layer.hidden,
        params: { ...withoutDepth(layer.params), ...(layer.blend !== 'normal' && { blend: { value: layer.blend } }) },
        children: layer.recipe.map((card) => now(layerId, card)),
        ...(layer.formulas && { formulas: withoutDepth(layer.formulas) }),
      };
      // Their formulas lead to the groups, read as they were in the layer that they came from.
      const cards = Object.values(layer.items).map((item) => ({
        ...item,
        id: now(layerId, item.id),
        ...(item.children && { children: item.children.map((card) => now(layerId, card)) }),
      }));
      const holder = newDrawing(whole, id, layer.name, [group, ...cards]);
      return Object.values(layerLed(holder, lead, layerId).items);
    });
    const made = newDrawing(whole, id, front.name, items, { tag: front.tag });
    const joined: Layer = {
      ...made,
      from: front.from,
      to: front.to,
      parent,
      params: { position: { value: pivot }, pivot: { value: pivot } },
    };
    const at = scene.order.indexOf(front.id);
    scene.layers[id] = joined as LayerDraft;
    scene.order = [...scene.order.slice(0, at), id, ...scene.order.slice(at)];
    for (const layer of hanging) reparent(scene, layer, id, frame, shown);
    leaveScene(scene, joining);
    leadAll(scene, lead);
  },
});
