/** Groups: controllers that stand, with all that hangs from them, for one thing. */
import { remembered } from '../document/remembered';
import type { ControllerLayer, Id, Layer, Scene } from '../document/types';
import { grouped } from '../recipe/marks';
import type { Mark } from '../recipe/types';
import { standings } from '../properties/standing';

const isGroup = (layer: Layer | null | undefined): layer is ControllerLayer =>
  layer?.kind === 'controller' && layer.group;

/** By each layer that is in groups, those, the outermost first. */
const groupsIn = remembered((scene: Scene): ReadonlyMap<Id, readonly ControllerLayer[]> => {
  if (!Object.values(scene.layers).some(isGroup)) return new Map();
  const standing = standings(scene);
  const around = (id: Id): readonly ControllerLayer[] => {
    const parent = standing.get(id)?.parent;
    if (!parent) return [];
    return isGroup(parent) ? [...around(parent.id), parent] : around(parent.id);
  };
  return new Map(scene.order.map((id) => [id, around(id)] as const).filter(([, groups]) => groups.length > 0));
});

const NONE: readonly ControllerLayer[] = [];

/** The groups that a layer is in, the outermost first. */
export const groupsAround = (scene: Scene, id: Id): readonly ControllerLayer[] => groupsIn(scene).get(id) ?? NONE;

/** Layers with the members of those among them that are groups, in the order of the stack. */
export const withMembers = (scene: Scene, ids: readonly Id[]): readonly Id[] => {
  if (groupsIn(scene).size === 0) return ids;
  const chosen = new Set(ids);
  const own = (id: Id) => chosen.has(id) || groupsAround(scene, id).some((group) => chosen.has(group.id));
  return scene.order.filter(own);
};

/** The members of groups, those of groups in them too, without the groups themselves. */
export const membersOf = (scene: Scene, groups: readonly Id[]): readonly Id[] =>
  withMembers(scene, groups).filter((id) => !groups.includes(id) && !isGroup(scene.layers[id]));

const spans = ({ from, to }: Layer, frame: number): boolean => frame >= from && frame < to;

/** Whether a layer is there at a frame, hidden or not: it, and the groups that it is in. */
export const isThere = (scene: Scene, layer: Layer, frame: number): boolean =>
  spans(layer, frame) && groupsAround(scene, layer.id).every((group) => spans(group, frame));

/** Whether a layer may be seen at a frame: it is there, and neither it nor a group that it is in is hidden. */
export const isShown = (scene: Scene, layer: Layer, frame: number): boolean =>
  !layer.hidden && groupsAround(scene, layer.id).every(({ hidden }) => !hidden) && isThere(scene, layer, frame);

/**
 * What layers show, back to front, with the members of each group that stand next to each other made one picture, where the
 * group lets through what is behind it.
 */
export const inGroups = (
  scene: Scene,
  layers: readonly Id[],
  marks: readonly Mark[],
  opacityOf: (group: ControllerLayer) => number,
): readonly Mark[] => {
  if (groupsIn(scene).size === 0) return marks;
  const fold = (from: number, to: number, depth: number): Mark[] => {
    const folded: Mark[] = [];
    for (let i = from; i < to;) {
      const group = groupsAround(scene, layers[i] as Id)[depth];
      let end = i + 1;
      while (group && end < to && groupsAround(scene, layers[end] as Id)[depth] === group) end++;
      const inner = group ? fold(i, end, depth + 1) : [marks[i] as Mark];
      const opacity = group ? opacityOf(group) : 1;
      if (opacity >= 1) folded.push(...inner);
      else if (opacity > 0) folded.push(grouped(inner, { alpha: opacity }));
      i = end;
    }
    return folded;
  };
  return fold(0, marks.length, 0);
};
