/**
 * A scene as it is looked at while it is worked on: with what masks and mattes cut away, or has not grown yet; or with words as they
 * are typed, not along their path. No output has it.
 */
import { newItem } from '../document/make';
import { PLACE } from '../document/params';
import type { DrawingLayer, Id, Item, Layer, Scene } from '../document/types';
import { mappedValues } from '../motion/keys';
import { grow } from '../recipe/covers/grow';
import { mask } from '../recipe/covers/mask';
import { matte } from '../recipe/covers/matte';
import { along } from '../recipe/steps/along';

/** How strongly a faint part shows. */
export const FAINT = 0.25;

const isOn = (item: Item | undefined, kind: string): boolean => item?.kind === kind && item.on;
const isMask = (item: Item | undefined): boolean => isOn(item, mask.kind);
const isGrowth = (item: Item | undefined): boolean => isOn(item, grow.kind);
const isMatte = (item: Item | undefined): boolean => isOn(item, matte.kind);
const lies = (item: Item): boolean => isOn(item, along.kind);
const cuts = (item: Item): boolean => isMask(item) || isGrowth(item) || isMatte(item);

/** Whether anything cuts in a layer: masks, mattes, or what has not grown. */
export const isCut = (layer: Layer | undefined): layer is DrawingLayer =>
  layer?.kind === 'drawing' && Object.values(layer.items).some(cuts);

/** Whether anything in a layer lies along a path. */
export const isLain = (layer: Layer | undefined): layer is DrawingLayer =>
  layer?.kind === 'drawing' && Object.values(layer.items).some(lies);

const faintly = (item: Item): Item =>
  isGrowth(item) ? { ...item, params: { ...item.params, rest: { value: FAINT } } } : item;

/** Behind each run of masks one more, which lets all of the picture through a little; what has not grown yet shows as much. */
const faint = (layer: DrawingLayer): DrawingLayer => {
  const more: Item[] = [];
  const withMore = (ids: readonly Id[]): readonly Id[] =>
    ids.flatMap((id, i) => {
      if (!isMask(layer.items[id]) || isMask(layer.items[ids[i + 1] ?? ''])) return [id];
      const own = newItem(`${id}~faint`, mask.kind, { mode: 'add', inverted: true, strength: FAINT });
      more.push(own);
      return [id, own.id];
    });
  const items = Object.values(layer.items).map((item) =>
    item.children ? { ...item, children: withMore(item.children) } : faintly(item),
  );
  const recipe = withMore(layer.recipe);
  return { ...layer, items: Object.fromEntries([...items, ...more].map((item) => [item.id, item])), recipe };
};

const without = (layer: DrawingLayer, isGone: (item: Item) => boolean): DrawingLayer => ({
  ...layer,
  items: Object.fromEntries(
    Object.values(layer.items).map((item) => [item.id, isGone(item) ? { ...item, on: false } : item]),
  ),
});

/** What stands right behind a layer that mattes cut: the same without them, faint. */
const behindMattes = (layer: DrawingLayer): DrawingLayer => {
  const { opacity: _formula, ...formulas } = layer.formulas ?? {};
  const opacity = mappedValues(layer.params.opacity, PLACE.opacity.default, (own) => (own as number) * FAINT);
  return { ...without(layer, isMatte), id: `${layer.id}~faint`, params: { ...layer.params, opacity }, formulas };
};

const withLayers = (scene: Scene, layers: readonly Layer[]): Scene => ({
  ...scene,
  layers: { ...scene.layers, ...Object.fromEntries(layers.map((layer) => [layer.id, layer])) },
});

/** How some layers are looked at: what is cut away from them faint, or there; or what lies along a path laid straight. */
export interface LookedAt {
  readonly layers: readonly Id[];
  readonly how: 'faint' | 'whole' | 'straight';
}

/** The scene as it is looked at. */
export const seenOtherwise = (scene: Scene, { layers, how }: LookedAt): Scene => {
  const chosen = layers.map((id) => scene.layers[id]);
  if (how === 'straight') {
    const straight = chosen.filter(isLain).map((layer) => without(layer, lies));
    return straight.length === 0 ? scene : withLayers(scene, straight);
  }
  const cut = chosen.filter(isCut);
  if (cut.length === 0) return scene;
  const changed = cut.map((layer) => (how === 'faint' ? faint(layer) : without(layer, cuts)));
  const behind = how === 'faint' ? cut.filter((l) => Object.values(l.items).some(isMatte)).map(behindMattes) : [];
  const there = new Set(behind.map(({ id }) => id));
  const order = scene.order.flatMap((id) => (there.has(`${id}~faint`) ? [id, `${id}~faint`] : [id]));
  return { ...withLayers(scene, [...changed, ...behind]), order };
};
