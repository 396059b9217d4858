/** Layers that play another scene: how they play it, and what they take along when their scene leaves its project. */
import { choice, number, type Params, percent, PLACE, switchParam } from './params';
import type { Id, Layer, Project, Scene } from './types';
import { formulasOn } from './formulas';

const FRAME = { unit: 'frames', min: 0, max: 200_000 } as const;

/** How a nest plays its scene. */
export const NEST = {
  play: choice(
    'Plays',
    [
      { value: 'forward', label: 'Forward' },
      { value: 'backward', label: 'Backward' },
      { value: 'pingpong', label: 'Ping-pong' },
      { value: 'freeze', label: 'One frame' },
      { value: 'keyed', label: 'Keyed time' },
    ],
    'forward',
  ),
  speed: percent('Speed', 1, { min: 0.01, max: 100, when: ['play', 'forward', 'backward', 'pingpong'] }),
  rounds: number('Times', 1, { min: 1, max: 10_000, when: ['play', 'forward', 'backward', 'pingpong'] }),
  still: number('Frame', 0, { ...FRAME, when: ['play', 'freeze'] }),
  time: number('Time', 0, { ...FRAME, when: ['play', 'keyed'] }),
  background: switchParam('Background', false),
} satisfies Params;

/** The parameters of a nest, its place among them. */
export const NEST_PARAMS: Params = { ...PLACE, ...NEST };

/** The parameters of a layer itself, without its cards or knobs. */
export const paramsOfLayer = (layer: { readonly kind: string }): Params =>
  layer.kind === 'nest' ? NEST_PARAMS : PLACE;

type Scenes = { readonly [id: Id]: Scene };

/** The scenes that a scene nests, directly and through others; each once, itself left out unless it nests itself. */
export const nestedIn = (scene: Scene, scenes: Scenes): Id[] => {
  const found = new Set<Id>();
  const walk = (at: Scene): void => {
    for (const layer of Object.values(at.layers)) {
      if (layer.kind !== 'nest' || found.has(layer.scene)) continue;
      found.add(layer.scene);
      const inner = scenes[layer.scene];
      if (inner) walk(inner);
    }
  };
  walk(scene);
  return [...found];
};

type Nested = NonNullable<Scene['nested']>;

const NONE: Nested = {};
const sets = new WeakMap<Scene, { readonly inner: readonly Scene[]; readonly nested: Nested }>();

/** Scenes by id: the same object for the same scenes, however often they are asked for. */
const setOf = (inner: readonly Scene[]): Nested => {
  const [first] = inner;
  if (!first) return NONE;
  const before = sets.get(first);
  if (before?.inner.length === inner.length && inner.every((s, i) => s === before.inner[i])) return before.nested;
  const nested = Object.fromEntries(inner.map((s) => [s.id, s]));
  sets.set(first, { inner, nested });
  return nested;
};

const wholes = new WeakMap<Scene, Scene>();

/** Whether any formula reads an ease that is kept under a name: by its id, or by a name that was not found. */
const readsEases = ({ layers }: Scene): boolean =>
  Object.values(layers).some((layer) => formulasOn(layer).some(({ formula }) => formula.text.includes('ease(')));

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
  let whole = wholes.get(scene);
  if (!whole || (whole.nested ?? NONE) !== nested || whole.eases !== eases) {
    whole = { ...scene, ...(ids.length > 0 && { nested }), ...(eases && { eases }) };
    wholes.set(scene, whole);
  }
  return whole;
};

/** All layers that are drawn for a scene: its own, and those of the scenes it takes along. */
export const allLayers = (scene: Scene): Layer[] => [
  ...Object.values(scene.layers),
  ...Object.values(scene.nested ?? {}).flatMap((inner) => Object.values(inner.layers)),
];
