/** What follows what in a scene: the one relation, by parent and by formula. */
import { formulasOn } from '../document/formulas';
import type { Formula, Id, Layer, PropertyRef, Scene } from '../document/types';
import { leadsOfFormula } from '../formula/reads';
import type { Target } from '../formula/refs';

/** Every formula of a layer that works, and what it is for. */
export const formulasOf = (scene: Id, layer: Layer): { readonly by: PropertyRef; readonly formula: Formula }[] =>
  formulasOn(layer).flatMap(({ of, formula }) =>
    formula.on ? [{ by: { scene, layer: layer.id, ...of }, formula }] : [],
  );

/** A formula at work and the properties that it reads, by their ids or by their names. */
export interface Reading {
  readonly by: PropertyRef;
  readonly reads: readonly Target[];
}

const readings = new WeakMap<Scene, readonly Reading[]>();

/** Every formula that works in a scene, with what it reads. Made once for each scene object. */
export const readingsIn = (scene: Scene): readonly Reading[] => {
  const before = readings.get(scene);
  if (before) return before;
  const all = Object.values(scene.layers).flatMap((layer) =>
    formulasOf(scene.id, layer).map(({ by, formula }): Reading => ({
      by,
      reads: leadsOfFormula(formula, scene, by).map(({ to }) => to),
    })),
  );
  readings.set(scene, all);
  return all;
};

/** The formulas on other layers that read something of these. */
export const readersOf = (scene: Scene, layers: readonly Id[]): readonly Reading[] => {
  const gone = new Set(layers);
  return readingsIn(scene).filter(({ by, reads }) => !gone.has(by.layer) && reads.some((r) => gone.has(r.layer)));
};

/** The formulas elsewhere that read something of a card or a knob. */
export const readersOfPart = (scene: Scene, layer: Id, part: Id): readonly Reading[] =>
  readingsIn(scene).filter(
    ({ by, reads }) =>
      !(by.layer === layer && by.item === part) && reads.some((r) => r.layer === layer && r.item === part),
  );

/** The layers that each layer follows directly: its parent, and those that its formulas at work read. Itself left out. */
const leads = new WeakMap<Scene, ReadonlyMap<Id, ReadonlySet<Id>>>();
const leadsIn = (scene: Scene): ReadonlyMap<Id, ReadonlySet<Id>> => {
  const before = leads.get(scene);
  if (before) return before;
  const all = new Map(
    Object.values(scene.layers).map(({ id, parent }) => [id, new Set(parent === null ? [] : [parent])]),
  );
  for (const { by, reads } of readingsIn(scene)) for (const { layer } of reads) all.get(by.layer)?.add(layer);
  for (const [id, own] of all) own.delete(id);
  leads.set(scene, all);
  return all;
};

const NONE: ReadonlySet<Id> = new Set();
export const leadsOf = (scene: Scene, id: Id): ReadonlySet<Id> => leadsIn(scene).get(id) ?? NONE;

const known = new WeakMap<Scene, ReadonlyMap<Id, readonly Id[]>>();

/** By each layer, the ones that follow it directly. Made once for each scene object. */
const followersIn = (scene: Scene): ReadonlyMap<Id, readonly Id[]> => {
  const before = known.get(scene);
  if (before) return before;
  const followers = new Map<Id, Id[]>();
  for (const [id, own] of leadsIn(scene)) {
    for (const lead of own) followers.set(lead, [...(followers.get(lead) ?? []), id]);
  }
  known.set(scene, followers);
  return followers;
};

/** Layers with all that follow them, however far down the line: what may look otherwise once they change. */
export const withFollowers = (scene: Scene, ids: Iterable<Id>): ReadonlySet<Id> => {
  const followers = followersIn(scene);
  const all = new Set(ids);
  // A set gives what is added to it while it is gone through.
  for (const id of all) for (const follower of followers.get(id) ?? []) all.add(follower);
  return all;
};
