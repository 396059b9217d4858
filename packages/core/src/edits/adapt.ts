/** What a scene shows, adapted to another size of it. */
import { namesIn, newController, stillAll, uniqueName } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { Id, Scene } from '../document/types';
import type { Size } from '../geometry/size';
import { sceneIn } from './find';
import { tidy } from './place';

export type Adapting = 'fit' | 'fill' | 'middle';

/** How much larger what was made for one size is in another: all of it to be seen, all of the scene covered, or as it was. */
export const adaptedScale = (from: Size, to: Size, how: Adapting): number => {
  const [x, y] = [to.width / from.width, to.height / from.height];
  return how === 'middle' ? 1 : how === 'fit' ? Math.min(x, y) : Math.max(x, y);
};

/**
 * Hangs all that hangs from nothing from a controller, which has the middle of the old size in the middle of the scene and
 * scales about it: keyframes, formulas and moves stay as they are, and all of it can be moved and scaled as one.
 */
export const adaptScene = (sceneId: Id, from: Size, how: Adapting, id: Id): Edit => ({
  label: 'Adapt to the new size',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const loose = Object.values(scene.layers).filter((layer) => layer.parent === null);
    if (loose.length === 0) return;
    const scale = tidy(adaptedScale(from, scene, how));
    const whole = plain<Scene>(scene);
    const controller = {
      ...newController(whole, id, uniqueName('All of the scene', namesIn(whole)), { tag: 'slate' }),
      params: stillAll({
        position: [scene.width / 2, scene.height / 2],
        pivot: [from.width / 2, from.height / 2],
        scale: [scale, scale],
      }),
    };
    for (const layer of loose) layer.parent = id;
    scene.layers[id] = controller as (typeof scene.layers)[string];
    scene.order.unshift(id);
    const placed = (at: number, before: number, now: number) => tidy((at - before / 2) * scale + now / 2);
    scene.guides = {
      x: scene.guides.x.map((at) => placed(at, from.width, scene.width)),
      y: scene.guides.y.map((at) => placed(at, from.height, scene.height)),
    };
  },
});
