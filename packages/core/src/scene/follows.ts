/** What follows what in a scene: the one relation, by parent, by formula and by what cards name. */
import { remembered } from '../document/remembered';
import { cycleFrom, reachedFrom } from '../document/order';
import { formulasOn } from '../document/formulas';
import type { Formula, Id, Layer, PropertyRef, Scene } from '../document/types';
import { leadsOfFormula } from '../formula/reads';
import { keyedCurvesOf } from '../properties/find';
import { needsOf } from '../recipe/needs';
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

/** Every formula that works in a scene, with what it reads. */
export const readingsIn = remembered((scene: Scene): readonly Reading[] =>
  Object.values(scene.layers).flatMap((layer) =>
    formulasOf(scene.id, layer).map(({ by, formula }): Reading => ({
      by,
      reads: leadsOfFormula(formula, scene, by).map(({ to }) => to),
    })),
  ),
);

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

/** The layers that each layer follows directly: its parent, those that its formulas at work read, those its cards name. Itself left out. */
const leadsIn = remembered((scene: Scene): ReadonlyMap<Id, ReadonlySet<Id>> => {
  const all = new Map(
    Object.values(scene.layers).map(({ id, parent }) => [id, new Set(parent === null ? [] : [parent])]),
  );
  for (const { by, reads } of readingsIn(scene)) for (const { layer } of reads) all.get(by.layer)?.add(layer);
  for (const id of scene.order) {
    const { layers, asks } = needsOf(scene.layers[id] as Layer);
    for (const lead of [...layers, ...(asks.behind ? behindIn(scene, id) : [])]) all.get(id)?.add(lead);
  }
  for (const [id, own] of all) own.delete(id);
  return all;
});

/** By each layer that cuts others, those, front to back. */
const cutsIn = remembered((scene: Scene): ReadonlyMap<Id, readonly Layer[]> => {
  const all = new Map<Id, Layer[]>();
  for (const id of scene.order) {
    const layer = scene.layers[id];
    for (const cutting of layer ? needsOf(layer).layers : []) {
      if (layer) all.set(cutting, [...(all.get(cutting) ?? []), layer]);
    }
  }
  return all;
});

/** The layers that are cut by another, front to back. */
export const layersCutBy = (scene: Scene, by: Id): readonly Layer[] => cutsIn(scene).get(by) ?? [];

type Layers = Pick<Scene, 'layers'>;

/** The layers that are there of those by which one is cut. */
const cuttersIn = ({ layers }: Layers, id: Id): readonly Layer[] => {
  const layer = layers[id];
  return layer ? [...needsOf(layer).layers].flatMap((by) => layers[by] ?? []) : [];
};

/** What layers are cut by, with what those hang from and are cut by in turn: all that has to be there for the same picture. */
export const cuttersOf = (scene: Layers, ids: readonly Id[]): ReadonlySet<Id> => {
  const found = new Set(ids.flatMap((id) => cuttersIn(scene, id)));
  for (const layer of found) {
    const parent = scene.layers[layer.parent ?? ''];
    for (const more of [...cuttersIn(scene, layer.id), parent]) if (more) found.add(more);
  }
  return new Set([...found].map(({ id }) => id));
};

/** The layers behind one, front to back. */
export const behindIn = ({ order }: Pick<Scene, 'order'>, id: Id): readonly Id[] => order.slice(order.indexOf(id) + 1);

/** Whether a layer would be cut by itself, were it cut by another. */
export const wouldCutItself = (scene: Layers, layer: Id, by: Id): boolean =>
  layer === by || reachedFrom(by, (id) => cuttersIn(scene, id).map((own) => own.id)).has(layer);

/** The layers by which a layer would be cut by itself, in order from it on; null where it is not. */
export const cutInCircle = (scene: Layers, start: Layer): readonly Layer[] | null =>
  needsOf(start).layers.size === 0 ? null : cycleFrom(start, ({ id }) => cuttersIn(scene, id));

/** The same, where what shows all that is behind it leads to that too: which follows from the order of the layers alone. */
export const drawnInCircle = (scene: Scene, start: Layer): readonly Layer[] | null => {
  const behind = (layer: Layer) => (needsOf(layer).asks.behind ? behindIn(scene, layer.id) : []);
  return needsOf(start).layers.size === 0
    ? null
    : cycleFrom(start, (layer) => [
        ...cuttersIn(scene, layer.id),
        ...behind(layer).flatMap((id) => scene.layers[id] ?? []),
      ]);
};

const NONE: ReadonlySet<Id> = new Set();
export const leadsOf = (scene: Scene, id: Id): ReadonlySet<Id> => leadsIn(scene).get(id) ?? NONE;

/** By each layer, the ones that follow it directly. */
const followersIn = remembered((scene: Scene): ReadonlyMap<Id, readonly Id[]> => {
  const followers = new Map<Id, Id[]>();
  for (const [id, own] of leadsIn(scene)) {
    for (const lead of own) followers.set(lead, [...(followers.get(lead) ?? []), id]);
  }
  return followers;
});

/** Layers with all that follow them, however far down the line: what may look otherwise once they change. */
export const withFollowers = (scene: Scene, ids: Iterable<Id>): ReadonlySet<Id> => {
  const followers = followersIn(scene);
  const all = new Set(ids);
  // A set gives what is added to it while it is gone through.
  for (const id of all) for (const follower of followers.get(id) ?? []) all.add(follower);
  return all;
};

/** The drawn layers that may stand or look otherwise from frame to frame: by keyframes, by formulas, or with what they follow. */
export const layersThatMove = (scene: Scene): Id[] => {
  const own = Object.values(scene.layers).filter(
    (layer) => keyedCurvesOf(scene.id, layer).length > 0 || formulasOf(scene.id, layer).length > 0,
  );
  const moving = withFollowers(
    scene,
    own.map(({ id }) => id),
  );
  return scene.order.filter((id) => moving.has(id) && scene.layers[id]?.kind === 'drawing');
};
