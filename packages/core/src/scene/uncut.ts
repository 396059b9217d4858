/** A scene with what masks cut away, or has not grown yet, to look at while they are worked on. No output has it. */
import { newItem } from '../document/make';
import type { DrawingLayer, Id, Item, Layer, Scene } from '../document/types';
import { grow } from '../recipe/covers/grow';
import { mask } from '../recipe/covers/mask';

/** How strongly a faint part shows. */
export const FAINT = 0.25;

const isOn = (item: Item | undefined, kind: string): boolean => item?.kind === kind && item.on;
const isMask = (item: Item | undefined): boolean => isOn(item, mask.kind);
const isGrowth = (item: Item | undefined): boolean => isOn(item, grow.kind);

/** Whether anything cuts in a layer: masks, or what has not grown. */
export const isCut = (layer: Layer | undefined): layer is DrawingLayer =>
  layer?.kind === 'drawing' && Object.values(layer.items).some((item) => isMask(item) || isGrowth(item));

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

const whole = (layer: DrawingLayer): DrawingLayer => ({
  ...layer,
  items: Object.fromEntries(
    Object.values(layer.items).map((item) => [item.id, isMask(item) || isGrowth(item) ? { ...item, on: false } : item]),
  ),
});

/** The scene with what is cut away from some layers there, or faint. */
export const uncut = (scene: Scene, layers: readonly Id[], how: 'faint' | 'whole'): Scene => {
  const changed = layers.flatMap((id) => {
    const layer = scene.layers[id];
    return isCut(layer) ? [[id, how === 'faint' ? faint(layer) : whole(layer)] as const] : [];
  });
  return changed.length === 0 ? scene : { ...scene, layers: { ...scene.layers, ...Object.fromEntries(changed) } };
};
