import type { Id, Scene } from '@kite/core/document/types';
import { layersThatMove } from '@kite/core/scene/follows';
import type { Onion } from '../../../preview/messages';

/** The frames and layers of an onion skin about a frame: the selected layers, or all that move. */
export const onionOf = (
  scene: Scene,
  frame: number,
  { count, step }: { readonly count: number; readonly step: number },
  selected: readonly Id[],
): Onion => {
  const each = Array.from({ length: count }, (_, i) => (i + 1) * step);
  return {
    before: each.map((by) => frame - by).filter((f) => f >= 0),
    after: each.map((by) => frame + by).filter((f) => f < scene.length),
    layers: selected.length > 0 ? selected : layersThatMove(scene),
  };
};
