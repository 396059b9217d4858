/**
 * Masks, and paths that others lie along: drawn over a layer, made of other layers, and layers again. What they are made of stays
 * where it is at the frame.
 */
import { type MakeId, newDrawing, newItem } from '../document/make';
import { PLACE } from '../document/params';
import { type Edit, plain, type ProjectDraft } from '../document/patches';
import type { DrawingLayer, Formulas, Id, Item, Layer, Point, Scene } from '../document/types';
import { retargeted, type Target } from '../formula/refs';
import { inverted, type Matrix, multiply } from '../geometry/matrix';
import { mask as maskKind } from '../recipe/covers/mask';
import { group as groupKind } from '../recipe/groups/group';
import { along as alongKind } from '../recipe/steps/along';
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

const named = <T>(key: string, value: T | undefined): { [key: string]: T } =>
  value === undefined ? {} : { [key]: value };

/** Properties, or their formulas. */
interface Of<T> {
  readonly [key: string]: T;
}
/**
 * What a layer has, parted between a group that stands where it stood and a card around that. The card has the opacity, by a name of
 * its own; by none it is the group's.
 */
const parted = <T>(of: Of<T> = {}, name: string | null): { readonly group: Of<T>; readonly card: Of<T> } => {
  const { opacity, ...place } = withoutDepth(of);
  return name === null
    ? { group: { ...place, ...named('opacity', opacity) }, card: {} }
    : { group: place, card: named(name, opacity) };
};
/** The same together again. */
const joined = <T>(group: Of<T> = {}, card: Of<T> = {}, name: string | null): Of<T> => {
  const { opacity, ...place } = withoutDepth(group);
  return { ...place, ...named('opacity', name === null ? opacity : card[name]) };
};

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

/** What a layer becomes for others. */
interface Use {
  readonly kind: string;
  readonly label: string;
  /** What another drawing is wanted for. */
  readonly wants: string;
  /** What a layer that is made of it is called, where it has no name. */
  readonly name: string;
  /** What the opacity of the layer becomes in the card; null where it is that of what stands in it. */
  readonly opacity: string | null;
  /** What paints a layer that is made of it, where nothing in it does. */
  readonly paint: string;
}
const USES = {
  mask: {
    kind: maskKind.kind,
    label: 'Use as a mask',
    wants: 'to mask',
    name: 'Mask',
    opacity: 'strength',
    paint: 'fill',
  },
  along: {
    kind: alongKind.kind,
    label: 'Lay along a path',
    wants: 'to lie along it',
    name: 'Path',
    opacity: null,
    paint: 'stroke',
  },
} as const satisfies { readonly [name: string]: Use };

/** What a layer draws as a card of another: a group in it that stands where the layer stood, keyframes and formulas too. */
const asCard = (
  { kind, opacity }: Use,
  by: DrawingLayer,
  around: Matrix | null,
  makeId: MakeId,
): { card: Item; inside: Item[] } => {
  const [params, formulas] = [parted(by.params, opacity), parted(by.formulas, opacity)];
  const withFormulas = (found: Formulas) => Object.keys(found).length > 0 && { formulas: found };
  const group: Item = {
    ...newItem(makeId(), groupKind.kind),
    params: params.group,
    children: by.recipe,
    ...withFormulas(formulas.group),
  };
  const card: Item = {
    ...newItem(makeId(), kind),
    name: by.name,
    params: params.card,
    ...withFormulas(formulas.card),
  };
  const groups = around ? inGroups(around, [group.id], makeId(), makeId) : [];
  return {
    card: { ...card, children: [(groups[0] ?? group).id] },
    inside: [group, ...groups, ...Object.values(by.items)],
  };
};

/** A drawing becomes a card of other drawings, each with one of its own, and is a layer no more. */
const holdBy = (use: Use, sceneId: Id, id: Id, targets: readonly Id[], frame: number, makeId: MakeId): Edit => ({
  label: use.label,
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const by = drawingIn(draft, sceneId, id);
    if (targets.length === 0 || targets.includes(id))
      throw new RangeError(`“${by.name}” wants another drawing ${use.wants}`);
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
      const { card, inside } = asCard(use, copy, around, makeId);
      const [group] = inside as [Item];
      const along = moving(copy.id, target, ({ item, key }) => {
        if (item !== undefined) return { layer: target, item, key };
        return key === 'opacity' && use.opacity !== null
          ? { layer: target, item: card.id, key: use.opacity }
          : { layer: target, item: group.id, key };
      });
      put(draft, sceneId, target, along(card), inside.map(along));
    }
    leaveScene(scene, new Set([id]));
  },
});

/** A drawing becomes a mask of others. */
export const maskBy = (scene: Id, id: Id, targets: readonly Id[], frame: number, makeId: MakeId): Edit =>
  holdBy(USES.mask, scene, id, targets, frame, makeId);

/** A drawing becomes the path that others lie along. */
export const layAlong = (scene: Id, id: Id, targets: readonly Id[], frame: number, makeId: MakeId): Edit =>
  holdBy(USES.along, scene, id, targets, frame, makeId);

/** Whether a layer can be made of what is in a card of a kind. */
export const isUse = (kind: string): boolean => Object.values(USES).some((use) => use.kind === kind);

/**
 * A mask, or a path that its layer lies along, becomes a drawing in front of the layer, which it follows, so that it stays in place;
 * filled, or stroked, where nothing else in it paints.
 */
export const layerOfCard = (sceneId: Id, layerId: Id, cardId: Id, makeId: MakeId): Edit => ({
  label: 'Make a layer of a card',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const layer = drawingIn(draft, sceneId, layerId);
    const card = plain<Item>(itemIn(layer, cardId));
    const use: Use | undefined = Object.values(USES).find(({ kind }) => kind === card.kind);
    if (!use) throw new NotFound('mask', cardId);
    const items = Object.fromEntries(within(plain<DrawingLayer>(layer).items, cardId).map((item) => [item.id, item]));
    const only = card.children?.length === 1 ? items[card.children[0] as Id] : undefined;
    const group = only?.kind === groupKind.kind ? only : undefined;
    const recipe = [...(group ? (group.children ?? []) : (card.children ?? []))];
    const inside = Object.values(items).filter(({ id }) => id !== cardId && id !== group?.id);
    if (!inside.some(({ kind }) => kindOf(kind).role === 'paint')) {
      const paint = newItem(makeId(), use.paint);
      inside.push(paint);
      recipe.push(paint.id);
    }
    const { opacity } = use;
    const place = joined(group?.params, card.params, opacity);
    const formulas = joined(group?.formulas, card.formulas, opacity);
    const bare = newDrawing(plain<Scene>(scene), makeId(), card.name ?? use.name, []);
    const along = moving(layerId, bare.id, ({ item, key }) => {
      if (item === group?.id) return { layer: bare.id, key };
      if (item === cardId) return key === opacity ? { layer: bare.id, key: 'opacity' } : null;
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
    detach(layer, cardId);
    for (const id of Object.keys(items)) delete layer.items[id];
    addLayers(sceneId, [along(made)], layerId).change(draft);
  },
});
