/** A layer cut in time into shots: wide, close, medium, and back. */
import { type MakeId, newItem } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id } from '../document/types';
import { group as groupKind } from '../recipe/groups/group';
import { drawingIn, type ItemDraft, sceneIn } from './find';
import { splitLayers } from './timing';

/** How large each shot in turn shows its layer. */
export const SHOT_SCALES = [1, 1.8, 1.35, 1] as const;
export const MOST_SHOTS = 50;

/** Frames that cut a layer into so many shots of even length; fewer where it is too short. */
export const evenCuts = ({ from, to }: Pick<DrawingLayer, 'from' | 'to'>, count: number): number[] => {
  const cuts = Array.from({ length: count - 1 }, (_, i) => Math.round(from + ((to - from) * (i + 1)) / count));
  return [...new Set(cuts)].filter((frame) => frame > from && frame < to);
};

/**
 * Splits a drawing at frames. Each shot after the first shows it larger or as it was, in a group of its own about the layer's
 * origin, which can be moved to what is to be seen.
 */
export const cutIntoShots = (sceneId: Id, layerId: Id, frames: readonly number[], makeId: MakeId): Edit => ({
  label: 'Cut into shots',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const { name, from, to } = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
    const cuts = frames.filter((frame) => frame > from && frame < to).toSorted((a, b) => a - b);
    if (cuts.length === 0) throw new RangeError(`“${name}” is too short to be cut into shots`);
    const shots = [layerId];
    for (const frame of cuts.slice(0, MOST_SHOTS - 1)) {
      const last = shots.at(-1) as Id;
      splitLayers(sceneId, [last], frame, makeId).change(draft);
      // What it cuts is split along with it; its own second part stands right before it.
      shots.push(scene.order[scene.order.indexOf(last) - 1] as Id);
    }
    shots.slice(1).forEach((id, i) => {
      const shot = drawingIn(draft, sceneId, id);
      shot.name = `${name} shot ${i + 2}`;
      const scale = SHOT_SCALES[(i + 1) % SHOT_SCALES.length] as number;
      if (scale === 1) return;
      const box = { ...newItem(makeId(), groupKind.kind, { scale: [scale, scale] }), name: 'Shot' };
      shot.items[box.id] = { ...box, children: [...shot.recipe] } as ItemDraft;
      shot.recipe = [box.id];
    });
  },
});
