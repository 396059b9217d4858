/** A scene with all that it takes along when it leaves its project. */
import { lastMade, remembered } from '../document/remembered';
import { reachedFrom } from '../document/order';
import { formulasOn } from '../document/formulas';
import type { Asset, Assets, FontChoice, Id, Layer, Project, Scene } from '../document/types';
import { factsOf } from '../formula/facts';
import { needsOf } from '../recipe/needs';

type Scenes = { readonly [id: Id]: Scene };

/** The scenes that the layers of a scene play. */
const playedIn = remembered(({ layers }: Scene): readonly Id[] => [
  ...new Set(Object.values(layers).flatMap((layer) => [...needsOf(layer).scenes])),
]);

/** The scenes that a scene nests, directly and through others; each once, itself left out unless it nests itself. */
export const nestedIn = (scene: Scene, scenes: Scenes): Id[] => [
  ...reachedFrom(scene.id, (id) => {
    const at = id === scene.id ? scene : scenes[id];
    return at ? playedIn(at) : [];
  }),
];

/** Whether a nest of one scene in another would make a scene play itself. */
export const wouldRecurse = (scenes: Scenes, inner: Id, outer: Id): boolean => {
  const scene = scenes[inner];
  return inner === outer || (scene !== undefined && nestedIn(scene, scenes).includes(outer));
};

type Nested = NonNullable<Scene['nested']>;

const NONE: Nested = {};
const sets = lastMade<Scene, Nested>();

/** Scenes by id: the same object for the same scenes, however often they are asked for. */
const setOf = (inner: readonly Scene[]): Nested => {
  const [first] = inner;
  if (!first) return NONE;
  return sets(first, inner, () => Object.fromEntries(inner.map((s) => [s.id, s])));
};

const wholes = lastMade<Scene, Scene>();

/** Whether any formula reads an ease that is kept under a name: by its id, or by a name that was not found. */
const readsEases = remembered(({ layers }: Scene): boolean =>
  Object.values(layers).some((layer) => formulasOn(layer).some(({ formula }) => factsOf(formula).readsEases)),
);

/**
 * A scene with the ones that it nests and the kept eases that it uses, to be drawn without its project; the same object
 * for the same scenes and eases. A scene that needs neither is given as it is.
 */
export const wholeScene = (scene: Scene, project: Pick<Project, 'scenes' | 'eases'>): Scene => {
  const ids = nestedIn(scene, project.scenes);
  const inner = ids.flatMap((id) => project.scenes[id] ?? []);
  const eases = project.eases.length > 0 && [scene, ...inner].some(readsEases) ? project.eases : undefined;
  if (ids.length === 0 && !eases) return scene;
  const nested = setOf(inner);
  return wholes(scene, [nested, eases], () => ({
    ...scene,
    ...(ids.length > 0 && { nested }),
    ...(eases && { eases }),
  }));
};

/** All layers that are drawn for a scene: its own, and those of the scenes it takes along. */
export const allLayers = (scene: Scene): Layer[] => [
  ...Object.values(scene.layers),
  ...Object.values(scene.nested ?? {}).flatMap((inner) => Object.values(inner.layers)),
];

/** Whether a version left anything to settle in a scene with all that it nests: see edits/settling.ts. */
export const isUnsettled = ({ unsettled, nested = {} }: Scene): boolean =>
  unsettled !== undefined || Object.values(nested).some((inner) => inner.unsettled);

/** Every font that a scene asks for at any time. */
export const fontsOfScene = (scene: Scene): FontChoice[] => allLayers(scene).flatMap((layer) => needsOf(layer).fonts);

/** The files that layers show or set their text in. */
export const assetsOf = (layers: readonly Layer[], assets: Assets): Asset[] => {
  const needs = layers.map(needsOf);
  const shown = new Set(needs.flatMap((n) => [...n.assets]));
  const families = new Set(needs.flatMap((n) => n.fonts.map((f) => f.family)));
  return Object.values(assets).filter((a) => (a.kind === 'font' ? families.has(a.family) : shown.has(a.id)));
};

/** Those that a scene draws on, with all that it nests. */
export const assetsFor = (scene: Scene, assets: Assets): Asset[] => assetsOf(allLayers(scene), assets);
/** The same, by their ids. */
export const assetsWithin = (scene: Scene, assets: Assets): Assets =>
  Object.fromEntries(assetsFor(scene, assets).map((asset) => [asset.id, asset]));
