/** Masks: drawn over a layer, made of other layers, and layers again. The picture stays where it is at the frame. */
import { type MakeId, newDrawing, newItem } from '../document/make';
import { PLACE } from '../document/params';
import { type Edit, plain, type ProjectDraft } from '../document/patches';
import type { DrawingLayer, Formulas, Id, Item, Layer, Point, Properties, Scene } from '../document/types';
import { retargeted, type Target } from '../formula/refs';
import { inverted, type Matrix, multiply } from '../geometry/matrix';
import { mask as maskKind } from '../recipe/covers/mask';
import { group as groupKind } from '../recipe/groups/group';
import { kindOf } from '../recipe/table';
import type { Program } from '../scene/program';
import { drawingIn, itemIn, type ItemDraft, NotFound, sceneIn } from './find';
import { inGroups, uprightIn } from './drawn';
import { addLayers, copiesOf } from './layers';
import { isSimilar, parentMatrix, reparent, withoutDepth } from './place';
import { detach, within } from './recipe';
import { leaveScene } from './sets';

const put = (draft: ProjectDraft, scene: Id, id: Id, mask: Item, inside: readonly Item[]): void => {
  const layer = drawingIn(draft, scene, id);
  for (const item of [mask, ...inside]) layer.items[item.id] = item as ItemDraft;
  layer.recipe = [...layer.recipe, mask.id];
};

/**
 * A mask at the end of a layer's recipe, whose shape stands upright at a point of the scene. `ids` are those of the mask and of
 * the group that places the shape.
 */
export const drawMask = (
  program: Program,
  layer: Id,
  ids: { readonly mask: Id; readonly group: Id },
  shape: Item,
  at: Point,
  frame: number,
  makeId: MakeId,
): Edit => ({
  label: 'Draw a mask',
  change: (draft) => {
    const cards = uprightIn(program.matrixAt(layer, frame), at, ids.group, shape, makeId);
    put(draft, program.scene.id, layer, { ...newItem(ids.mask, maskKind.kind), children: [cards[0].id] }, cards);
  },
});

/** The properties of a layer, or of a group, that say where it is; what the other calls its opacity by itself. */
const parted = <T>(of: { readonly [key: string]: T } = {}): { opacity: T | undefined; place: { [key: string]: T } } => {
  const { opacity, ...place } = withoutDepth(of);
  return { opacity, place };
};

const named = <T>(key: string, value: T | undefined): { [key: string]: T } =>
  value === undefined ? {} : { [key]: value };

/** Where formulas that are moved from one layer to another lead: `moved` says it of what goes along; the rest stays. */
const moving =
  (from: Id, to: Id, moved: (target: Target) => Target | null) =>
  <T extends Item | Layer>(holder: T): T => {
    if (!holder.formulas) return holder;
    const lead = (target: Target) => (target.layer === from ? { ...target, layer: from, ...moved(target) } : target);
    const formulas = Object.entries(holder.formulas).map(([key, formula]) => [
      key,
      { ...formula, text: retargeted(formula.text, lead, { layer: from, key: '' }, { layer: to, key: '' }) },
    ]);
    return { ...holder, formulas: Object.fromEntries(formulas) as Formulas };
  };

/** What a layer draws as a mask: a group that stands where the layer stood, keyframes and formulas too. */
const asMask = (by: DrawingLayer, around: Matrix | null, makeId: MakeId): { mask: Item; inside: Item[] } => {
  const [params, formulas] = [parted(by.params), parted<Formulas[string]>(by.formulas)];
  const withFormulas = (found: Formulas) => Object.keys(found).length > 0 && { formulas: found };
  const group: Item = {
    ...newItem(makeId(), groupKind.kind),
    params: params.place,
    children: by.recipe,
    ...withFormulas(formulas.place),
  };
  const mask: Item = {
    ...newItem(makeId(), maskKind.kind),
    name: by.name,
    params: named('strength', params.opacity),
    ...withFormulas(named('strength', formulas.opacity)),
  };
  const groups = around ? inGroups(around, [group.id], makeId(), makeId) : [];
  return {
    mask: { ...mask, children: [(groups[0] ?? group).id] },
    inside: [group, ...groups, ...Object.values(by.items)],
  };
};

/** A drawing becomes a mask of other drawings, each with one of its own, and is a layer no more. */
export const maskBy = (sceneId: Id, id: Id, targets: readonly Id[], frame: number, makeId: MakeId): Edit => ({
  label: 'Use as a mask',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const by = drawingIn(draft, sceneId, id);
    if (targets.length === 0 || targets.includes(id))
      throw new RangeError(`“${by.name}” wants another drawing to mask`);
    const { parent } = by;
    for (const other of Object.values(scene.layers)) if (other.parent === id) reparent(scene, other.id, parent, frame);
    const stood = parentMatrix(scene, parent, frame);
    const alone = plain<DrawingLayer>(by);
    for (const target of targets) {
      drawingIn(draft, sceneId, target);
      const back = inverted(parentMatrix(scene, target, frame));
      const way = back && multiply(back, stood);
      // What stretches unevenly slants what turns: that takes groups around, and leaves the place as it is.
      const around = way && !isSimilar(way) ? way : null;
      if (!around) reparent(scene, id, target, frame);
      const [copy] = copiesOf([around ? alone : plain<DrawingLayer>(by)], makeId) as [DrawingLayer];
      const { mask, inside } = asMask(copy, around, makeId);
      const [group] = inside as [Item];
      const along = moving(copy.id, target, ({ item, key }) => {
        if (item !== undefined) return { layer: target, item, key };
        return key === 'opacity'
          ? { layer: target, item: mask.id, key: 'strength' }
          : { layer: target, item: group.id, key };
      });
      put(draft, sceneId, target, along(mask), inside.map(along));
    }
    leaveScene(scene, new Set([id]));
  },
});

/**
 * A mask becomes a drawing in front of its layer, which it follows, so that it stays in place; filled where nothing else in it
 * paints.
 */
export const layerOfMask = (sceneId: Id, layerId: Id, maskId: Id, makeId: MakeId): Edit => ({
  label: 'Make a layer of a mask',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const layer = drawingIn(draft, sceneId, layerId);
    const mask = plain<Item>(itemIn(layer, maskId));
    if (mask.kind !== maskKind.kind) throw new NotFound('mask', maskId);
    const items = Object.fromEntries(within(plain<DrawingLayer>(layer).items, maskId).map((item) => [item.id, item]));
    const only = mask.children?.length === 1 ? items[mask.children[0] as Id] : undefined;
    const group = only?.kind === groupKind.kind ? only : undefined;
    const recipe = [...(group ? (group.children ?? []) : (mask.children ?? []))];
    const inside = Object.values(items).filter(({ id }) => id !== maskId && id !== group?.id);
    if (!inside.some(({ kind }) => kindOf(kind).role === 'paint')) {
      const fill = newItem(makeId(), 'fill');
      inside.push(fill);
      recipe.push(fill.id);
    }
    const place: Properties = { ...parted(group?.params).place, ...named('opacity', mask.params.strength) };
    const formulas: Formulas = {
      ...parted(group?.formulas as Formulas | undefined).place,
      ...named('opacity', (mask.formulas as Formulas | undefined)?.strength),
    };
    const bare = newDrawing(plain<Scene>(scene), makeId(), mask.name ?? 'Mask', []);
    const along = moving(layerId, bare.id, ({ item, key }) => {
      if (item === group?.id) return { layer: bare.id, key };
      if (item === maskId) return key === 'strength' ? { layer: bare.id, key: 'opacity' } : null;
      return item !== undefined && items[item] ? { layer: bare.id, item, key } : null;
    });
    const made: Layer = {
      ...bare,
      from: layer.from,
      to: layer.to,
      items: Object.fromEntries(inside.map((item) => [item.id, along(item)])),
      recipe,
      parent: layerId,
      params: { position: { value: PLACE.position.default }, ...place },
      ...(Object.keys(formulas).length > 0 && { formulas }),
    };
    detach(layer, maskId);
    for (const id of Object.keys(items)) delete layer.items[id];
    addLayers(sceneId, [along(made)], layerId).change(draft);
  },
});
