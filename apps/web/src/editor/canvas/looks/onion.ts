import type { Id, Layer, Scene } from '@kite/core/document/types';
import { celFramesOf } from '@kite/core/edits/cels';
import { layersThatMove } from '@kite/core/scene/follows';
import type { Onion } from '../../../preview/messages';

/** What an onion skin shows at first: so many frames each way, each so many from the next. */
export const ONION = { count: 3, step: 2 };

/** The frames around one, so many each way: of a layer that is drawn by hand those of its cels. */
const framesAround = (
  scene: Scene,
  frame: number,
  { count, step }: { readonly count: number; readonly step: number },
  only: Layer | undefined,
): Pick<Onion, 'before' | 'after'> => {
  const frames = only?.kind === 'drawing' ? celFramesOf(only) : null;
  if (frames) {
    const here = frames.findLastIndex((from) => from <= frame);
    return {
      before: frames.slice(Math.max(0, here - count), Math.max(0, here)).reverse(),
      after: frames.slice(here + 1, here + 1 + count),
    };
  }
  const each = Array.from({ length: count }, (_, i) => (i + 1) * step);
  return {
    before: each.map((by) => frame - by).filter((f) => f >= 0),
    after: each.map((by) => frame + by).filter((f) => f < scene.length),
  };
};

/** The frames and layers of an onion skin about a frame: the selected layers, or all that move. */
export const onionOf = (
  scene: Scene,
  frame: number,
  how: { readonly count: number; readonly step: number },
  selected: readonly Id[],
): Onion => ({
  ...framesAround(scene, frame, how, selected.length === 1 ? scene.layers[selected[0] as Id] : undefined),
  layers: selected.length > 0 ? selected : layersThatMove(scene),
});
