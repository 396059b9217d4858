/** What follows what in a scene: the one relation, by parent and by formula. */
import { formulasOn } from '../document/formulas';
import type { Id, Scene } from '../document/types';
import { factsOf } from '../formula/facts';
import { referenceOf } from '../formula/refs';

/** The layers that a layer follows directly: its parent, and those that its formulas at work read. Itself left out. */
export const leadsOf = (scene: Scene, id: Id): ReadonlySet<Id> => {
  const leads = new Set<Id>();
  const layer = scene.layers[id];
  if (!layer) return leads;
  if (layer.parent !== null) leads.add(layer.parent);
  for (const { of, formula } of formulasOn(layer)) {
    if (!formula.on) continue;
    for (const { path } of factsOf(formula).reads) {
      const to = referenceOf(path, scene, { layer: id, ...of });
      if (typeof to !== 'string' && to.kind === 'property') leads.add(to.to.layer);
    }
  }
  leads.delete(id);
  return leads;
};

const known = new WeakMap<Scene, ReadonlyMap<Id, readonly Id[]>>();

/** By each layer, the ones that follow it directly. Made once for each scene object. */
const followersIn = (scene: Scene): ReadonlyMap<Id, readonly Id[]> => {
  const before = known.get(scene);
  if (before) return before;
  const followers = new Map<Id, Id[]>();
  for (const id of Object.keys(scene.layers)) {
    for (const lead of leadsOf(scene, id)) followers.set(lead, [...(followers.get(lead) ?? []), id]);
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
