/** Edits to routines: whatever is changed of one is written anew on every layer that plays it. */
import { PLACE } from '../document/params';
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import { type Id, isApart, isKeyed, type Layer, type Value } from '../document/types';
import { withoutKeys, withPastedKeys } from '../motion/keys';
import { broughtTogether } from '../motion/parting';
import { playedBy, playsUntouched, restAt, startOf } from '../moves/routine';
import { isDeep } from '../moves/write';
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
  for (const { ref, keys, after } of playedBy(routine, layer, scene.id, start, rest ?? restAt(layer, start))) {
    change(draft, ref, (property) => ({ ...withPastedKeys(property, keys), ...(after && { after }) }));
    if (ref.item !== undefined || !isDeep(ref.key)) continue;
    change(draft, { ...ref, key: 'depth' }, (property) => (isKeyed(property) ? property : { value: true }));
  }
};

/** Takes a routine's keyframes off a layer; says how the layer rests, or null where it was edited by hand. */
const erase = (
  draft: ProjectDraft,
  scene: SceneDraft,
  routine: Routine,
  id: Id,
  start = startOf(routine, id),
): RestOf | null => {
  const layer = playerIn(scene, id);
  if (!layer || !playsUntouched(routine, layer, scene.id, start)) return null;
  const rest = restAt(layer, start);
  for (const { ref, keys, after } of playedBy(routine, layer, scene.id, start, rest)) {
    const own: Value = rest(ref);
    change(draft, ref, (property) => {
      if (!isKeyed(property)) return property ?? { value: own };
      const left = withoutKeys(property, new Set(keys.map((k) => k.frame)));
      if (!isKeyed(left)) return { value: own };
      const { after: _goneOn, ...once } = left;
      return after ? once : left;
    });
  }
  return rest;
};

const routineIn = (scene: SceneDraft, id: Id): Routine => {
  const routine = scene.routines.find((r) => r.id === id);
  if (!routine) throw new NotFound('routine', id);
  return plain<Routine>(routine);
};

/** Writes a routine anew on its players, those left out that were edited by hand: `rests` says how the others rest, null for such a one. */
const rewrite = (
  draft: ProjectDraft,
  scene: SceneDraft,
  routine: Routine,
  rests: ReadonlyMap<Id, RestOf | null>,
): void => {
  const players = routine.players.filter((player) => scene.layers[player] && rests.get(player) !== null);
  const next: Routine = { ...routine, players };
  for (const player of players) write(draft, scene, next, player, rests.get(player) ?? undefined);
  scene.routines = scene.routines.map((r) => (r.id === next.id ? next : r)) as typeof scene.routines;
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
    rewrite(draft, scene, { ...before, ...fields }, rests);
  },
});

/** Copies of players play their routines too, after those who do already. */
export const joinRoutines = (sceneId: Id, copies: ReadonlyMap<Id, Id>): Edit => ({
  label: 'Play along',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const { id } of scene.routines) {
      const routine = routineIn(scene, id);
      const copied = routine.players.filter((player) => copies.has(player));
      if (copied.length === 0) continue;
      const rests = new Map(
        routine.players.flatMap((player) => {
          const copy = copies.get(player);
          const both = copy === undefined ? [player] : [player, copy];
          // A copy has the keyframes of what it is a copy of.
          return both.map((own) => [own, erase(draft, scene, routine, own, startOf(routine, player))] as const);
        }),
      );
      const players = [...routine.players, ...copied.map((player) => copies.get(player) as Id)];
      rewrite(draft, scene, { ...routine, players }, rests);
    }
  },
});

/** The routines that none but these layers play. */
const playedByAll = (scene: SceneDraft, ids: readonly Id[]): Routine[] =>
  scene.routines
    .map((r) => plain<Routine>(r))
    .filter(({ players }) => players.length > 0 && players.every((player) => ids.includes(player)));

/** Slides layers in time, as `act` does, and the routines along that none but they play. */
export const slidingRoutines = (scene: SceneDraft, ids: readonly Id[], by: number, act: () => void): void => {
  const all = new Set(playedByAll(scene, ids).map(({ id }) => id));
  act();
  for (const routine of scene.routines) if (all.has(routine.id)) routine.start += by;
};

/** A routine that lasts `factor` times as long, its players' beginnings sent elsewhere; null where they would not be one after another any more. */
const stretched = (routine: Routine, factor: number, to: (player: Id, frame: number) => number): Routine | null => {
  const starts = new Map(routine.players.map((player) => [player, to(player, startOf(routine, player))]));
  const first = routine.players.find((player) => startOf(routine, player) === routine.start);
  const next: Routine = {
    ...routine,
    start: starts.get(first ?? '') ?? routine.start,
    stagger: Math.round(routine.stagger * factor),
    speed: routine.speed / factor,
  };
  return routine.players.every((player) => startOf(next, player) === starts.get(player)) ? next : null;
};

/** Stretches layers, as `act` does by `to`, and the routines along that none but they play: those are written anew. */
export const stretchingRoutines = (
  draft: ProjectDraft,
  scene: SceneDraft,
  ids: readonly Id[],
  factor: number,
  to: (layer: Id, frame: number) => number,
  act: () => void,
): void => {
  const all = playedByAll(scene, ids).flatMap((routine) => {
    const next = factor > 0 ? stretched(routine, factor, to) : null;
    const rests = new Map(next?.players.map((player) => [player, erase(draft, scene, routine, player)]));
    return next ? [{ next, rests }] : [];
  });
  act();
  for (const { next, rests } of all) rewrite(draft, scene, next, rests);
};

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
