/** Edits to sets: layers in an order that formulas know. */
import { type Edit, plain } from '../document/patches';
import type { Id, LayerSet } from '../document/types';
import { layerIn, NotFound, type SceneDraft, sceneIn } from './find';

/** A set with other members: a word one of whose parts is not among them is one no more. */
export const withMembersOf = ({ word, ...set }: LayerSet, members: readonly Id[]): LayerSet => ({
  ...set,
  members,
  ...(word?.parts.every((id) => members.includes(id)) && { word }),
});

/** Takes layers out of their sets; a set that has none left goes. */
const leaveSets = (scene: SceneDraft, gone: ReadonlySet<Id>): void => {
  if (!scene.sets.some((set) => set.members.some((id) => gone.has(id)))) return;
  const left = plain<readonly LayerSet[]>(scene.sets).map((set) =>
    set.members.some((id) => gone.has(id))
      ? withMembersOf(
          set,
          set.members.filter((id) => !gone.has(id)),
        )
      : set,
  );
  scene.sets = left.filter((set) => set.members.length > 0) as SceneDraft['sets'];
};

/** Makes a set: the first member is the lead. Members leave the sets that they were in. */
export const makeSet = (sceneId: Id, set: LayerSet): Edit => ({
  label: 'Make a set',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const id of set.members) layerIn(scene, id);
    leaveSets(scene, new Set(set.members));
    scene.sets = [...scene.sets, set as SceneDraft['sets'][number]];
  },
});

/** Takes layers out of what names them in their scene: lists of the stack, parents, routines, poses and sets. */
export const leaveScene = (scene: SceneDraft, gone: ReadonlySet<Id>): void => {
  for (const id of gone) delete scene.layers[id];
  scene.order = scene.order.filter((id) => !gone.has(id));
  for (const layer of Object.values(scene.layers)) if (gone.has(layer.parent ?? '')) layer.parent = null;
  for (const routine of scene.routines) {
    if (routine.players.some((id) => gone.has(id))) routine.players = routine.players.filter((id) => !gone.has(id));
  }
  if (scene.poses?.kept.some(({ layers }) => Object.keys(layers).some((id) => gone.has(id)))) {
    for (const pose of scene.poses.kept) for (const id of gone) delete pose.layers[id];
  }
  leaveSets(scene, gone);
};

const setIn = (scene: SceneDraft, id: Id) => {
  const set = scene.sets.find((s) => s.id === id);
  if (!set) throw new NotFound('set', id);
  return set;
};

export const renameSet = (sceneId: Id, id: Id, name: string): Edit => ({
  label: 'Rename a set',
  change: (draft) => {
    setIn(sceneIn(draft, sceneId), id).name = name;
  },
});

/** Other members, or the same in another order. */
export const setMembers = (sceneId: Id, id: Id, members: readonly Id[]): Edit => ({
  label: 'Change a set',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const set = plain<LayerSet>(setIn(scene, id));
    const before = new Set(set.members);
    leaveSets(scene, new Set(members.filter((m) => !before.has(m))));
    const next = scene.sets.map((s) => (s.id === id ? withMembersOf(set, members) : s)) as SceneDraft['sets'];
    scene.sets = next.filter((s) => s.members.length > 0);
  },
});

/** The layers stay, with formulas that know no order any more. */
export const removeSet = (sceneId: Id, id: Id): Edit => ({
  label: 'Remove a set',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    setIn(scene, id);
    scene.sets = scene.sets.filter((s) => s.id !== id);
  },
});

/**
 * Lets copies follow where their originals do: copies of followers join at the end of the set. Copied along with its lead
 * they become a set of their own.
 */
export const joinSets = (sceneId: Id, copies: ReadonlyMap<Id, Id>, newId: () => Id): Edit => ({
  label: 'Join sets',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const set of [...scene.sets]) {
      const copied = set.members.filter((id) => copies.has(id));
      const own = copied.map((id) => copies.get(id) as Id);
      if (copied.length === 0) continue;
      if (copied[0] !== set.members[0]) set.members = [...set.members, ...own];
      else if (own.length > 1) {
        const { word } = plain<LayerSet>(set);
        const parts = word?.parts.flatMap((id) => copies.get(id) ?? []);
        const copy: LayerSet = {
          id: newId(),
          name: `${set.name} copy`,
          members: own,
          ...(word && parts?.length === word.parts.length && { word: { ...word, parts } }),
        };
        scene.sets = [...scene.sets, copy as SceneDraft['sets'][number]];
      }
    }
  },
});
