/** A scene with what masks and mattes cut away, or has not grown yet, to look at while they are worked on. No output has it. */
import { newItem } from '../document/make';
import { PLACE } from '../document/params';
import type { DrawingLayer, Id, Item, Layer, Scene } from '../document/types';
import { mappedValues } from '../motion/keys';
import { grow } from '../recipe/covers/grow';
import { mask } from '../recipe/covers/mask';
import { matte } from '../recipe/covers/matte';

/** How strongly a faint part shows. */
export const FAINT = 0.25;

const isOn = (item: Item | undefined, kind: string): boolean => item?.kind === kind && item.on;
const isMask = (item: Item | undefined): boolean => isOn(item, mask.kind);
const isGrowth = (item: Item | undefined): boolean => isOn(item, grow.kind);
const isMatte = (item: Item | undefined): boolean => isOn(item, matte.kind);
const cuts = (item: Item): boolean => isMask(item) || isGrowth(item) || isMatte(item);

/** Whether anything cuts in a layer: masks, mattes, or what has not grown. */
export const isCut = (layer: Layer | undefined): layer is DrawingLayer =>
  layer?.kind === 'drawing' && Object.values(layer.items).some(cuts);

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

/** The scene with what is cut away from some layers there, or faint. */
export const uncut = (scene: Scene, layers: readonly Id[], how: 'faint' | 'whole'): Scene => {
  const cut = layers.flatMap((id) => {
    const layer = scene.layers[id];
    return isCut(layer) ? [layer] : [];
  });
  if (cut.length === 0) return scene;
  const changed = cut.map((layer) => (how === 'faint' ? faint(layer) : without(layer, cuts)));
  const behind = how === 'faint' ? cut.filter((l) => Object.values(l.items).some(isMatte)).map(behindMattes) : [];
  const all = [...changed, ...behind].map((layer) => [layer.id, layer] as const);
  const there = new Set(behind.map(({ id }) => id));
  const order = scene.order.flatMap((id) => (there.has(`${id}~faint`) ? [id, `${id}~faint`] : [id]));
  return { ...scene, order, layers: { ...scene.layers, ...Object.fromEntries(all) } };
};
