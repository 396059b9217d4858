/** Lists and maps that fell apart when two people's edits met, put together again. */
import type { Edit } from '../document/patches';
import type { Id } from '../document/types';

/** The list without what is gone, and with what it misses in front. */
const agreeing = (order: readonly Id[], map: object): Id[] => {
  const known = order.filter((id, i) => Object.hasOwn(map, id) && order.indexOf(id) === i);
  const missing = Object.keys(map).filter((id) => !known.includes(id));
  return [...missing, ...known];
};

const same = (a: readonly Id[], b: readonly Id[]) => a.length === b.length && a.every((id, i) => id === b[i]);

/** After this every scene and layer stands in its list once, and nobody's parent is gone. */
export const reconcile = (): Edit => ({
  label: 'Bring together edits made in two places',
  change: (draft) => {
    const scenes = agreeing(draft.order, draft.scenes);
    if (!same(scenes, draft.order)) draft.order = scenes;
    for (const scene of Object.values(draft.scenes)) {
      const layers = agreeing(scene.order, scene.layers);
      if (!same(layers, scene.order)) scene.order = layers;
      for (const layer of Object.values(scene.layers)) {
        if (layer.parent !== null && !scene.layers[layer.parent]) layer.parent = null;
      }
    }
  },
});
