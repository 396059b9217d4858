/** Edits to routines: whatever is changed of one is written anew on every layer that plays it. */
import { PLACE } from '../document/params';
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import { type Id, isApart, isKeyed, type Layer, type Value } from '../document/types';
import { withoutKeys, withPastedKeys } from '../motion/keys';
import { broughtTogether } from '../motion/parting';
import { playedBy, playsUntouched, restAt, startOf } from '../moves/routine';
import { type Routine } from '../document/moves';
import { NotFound, sceneIn } from './find';
import { change } from './properties';

type SceneDraft = ProjectDraft['scenes'][string];
type RestOf = ReturnType<typeof restAt>;

const playerIn = (scene: SceneDraft, id: Id): Layer | null => {
  const layer = scene.layers[id];
  return layer ? plain<Layer>(layer) : null;
};

/** Writes a routine on a layer that rests so. */
const write = (draft: ProjectDraft, scene: SceneDraft, routine: Routine, id: Id, rest?: RestOf): void => {
  const position = scene.layers[id]?.params.position;
  if (position && isApart(plain(position))) {
    change(draft, { scene: scene.id, layer: id, key: 'position' }, (p) =>
      isApart(p) ? broughtTogether(PLACE.position, p) : (p ?? { value: PLACE.position.default }),
    );
  }
  const layer = playerIn(scene, id);
  if (!layer) return;
  const start = startOf(routine, id);
  for (const { ref, keys } of playedBy(routine, layer, scene.id, start, rest ?? restAt(layer, start))) {
    change(draft, ref, (property) => withPastedKeys(property, keys));
  }
};

/** Takes a routine's keyframes off a layer; says how the layer rests, or null where it was edited by hand. */
const erase = (draft: ProjectDraft, scene: SceneDraft, routine: Routine, id: Id): RestOf | null => {
  const layer = playerIn(scene, id);
  if (!layer || !playsUntouched(routine, layer, scene.id)) return null;
  const start = startOf(routine, id);
  const rest = restAt(layer, start);
  for (const { ref, keys } of playedBy(routine, layer, scene.id, start, rest)) {
    const own: Value = rest(ref);
    change(draft, ref, (property) => {
      if (!isKeyed(property)) return property ?? { value: own };
      const left = withoutKeys(property, new Set(keys.map((k) => k.frame)));
      return isKeyed(left) ? left : { value: own };
    });
  }
  return rest;
};

const routineIn = (scene: SceneDraft, id: Id): Routine => {
  const routine = scene.routines.find((r) => r.id === id);
  if (!routine) throw new NotFound('routine', id);
  return plain<Routine>(routine);
};

/** A new routine, played at once by its layers. */
export const addRoutine = (sceneId: Id, routine: Routine): Edit => ({
  label: 'New routine',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    scene.routines = [...scene.routines, routine] as typeof scene.routines;
    for (const id of routine.players) write(draft, scene, routine, id);
  },
});

/** Changes a routine on all the layers that play it. A layer edited by hand keeps its keyframes and plays it no more. */
export const setRoutine = (sceneId: Id, id: Id, fields: Partial<Omit<Routine, 'id'>>): Edit => ({
  label: fields.name === undefined ? 'Change a routine' : 'Rename a routine',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const before = routineIn(scene, id);
    const rests = new Map(before.players.map((player) => [player, erase(draft, scene, before, player)]));
    const wanted = fields.players ?? before.players;
    const players = wanted.filter((player) => scene.layers[player] && rests.get(player) !== null);
    const next: Routine = { ...before, ...fields, players };
    for (const player of players) write(draft, scene, next, player, rests.get(player) ?? undefined);
    scene.routines = scene.routines.map((r) => (r.id === id ? next : r)) as typeof scene.routines;
  },
});

/** Takes a routine away, with its keyframes where they are as it wrote them. */
export const removeRoutine = (sceneId: Id, id: Id): Edit => ({
  label: 'Remove a routine',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const routine = routineIn(scene, id);
    for (const player of routine.players) erase(draft, scene, routine, player);
    scene.routines = scene.routines.filter((r) => r.id !== id);
  },
});
