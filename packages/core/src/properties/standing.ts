/** What layers hang from, where that leads to an end. */
import { remembered } from '../document/remembered';
import { cycleFrom, sorted } from '../document/order';
import type { Id, Layer, Scene } from '../document/types';

export interface Standing {
  /** What a layer hangs from; null for one that stands by itself, as those in or below a circle do. */
  readonly parent: Layer | null;
  /** What is said of the layer; null where nothing is wrong. */
  readonly problem: { readonly layer: Id; readonly message: string } | null;
}

/** What each layer hangs from. */
export const standings = remembered((scene: Scene): ReadonlyMap<Id, Standing> => {
  const layers = Object.values(scene.layers);
  const parentOf = (layer: Layer) => (layer.parent === null ? undefined : scene.layers[layer.parent]);
  const above = (layer: Layer): Layer[] => [parentOf(layer) ?? []].flat();
  const round = new Set(sorted(layers, new Map(layers.map((layer) => [layer, above(layer)]))).left);
  return new Map(
    layers.map((layer): [Id, Standing] => {
      const says = (message: string): Standing => ({ parent: null, problem: { layer: layer.id, message } });
      const parent = parentOf(layer);
      if (!parent) {
        const gone = layer.parent !== null;
        return [layer.id, gone ? says('has a parent that is gone') : { parent: null, problem: null }];
      }
      if (!round.has(layer)) return [layer.id, { parent, problem: null }];
      const circle = cycleFrom(layer, above);
      const names = [...(circle ?? []), layer].map((l) => l.name).join(' → ');
      return [
        layer.id,
        says(circle ? `is its own parent: ${names}` : `hangs from “${parent.name}”, which hangs from itself`),
      ];
    }),
  );
});
