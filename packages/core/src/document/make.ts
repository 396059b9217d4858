/** New things with the values that a designer expects of them. */
import type { Routine, RoutineStep } from './moves';
import type {
  Color,
  ControllerLayer,
  Light,
  DrawingLayer,
  Id,
  Item,
  Layer,
  Point,
  Project,
  Properties,
  Property,
  Rate,
  Scene,
  Tag,
  Value,
  Viewpoint,
} from './types';

export const FORMAT_VERSION = 11;

/** Gives a new id each time it is called. */
export type MakeId = () => Id;

/** Ids that repeat from run to run: `a1`, `a2`, ... for demos and tests. */
export const countingIds = (prefix: string): MakeId => {
  let n = 0;
  return () => `${prefix}${++n}`;
};

export const still = (value: Value): Property => ({ value });

export const stillAll = (values: { readonly [key: string]: Value }): Properties =>
  Object.fromEntries(Object.entries(values).map(([key, value]) => [key, still(value)]));

export interface SceneSize {
  readonly width: number;
  readonly height: number;
  readonly rate: Rate;
  readonly length: number;
  readonly background: Color | null;
}

/** Wide enough for depth to show, and not so wide that it bulges. */
export const FIRST_EYE: Viewpoint = { angle: 40, off: [0, 0] };

/** From the upper left, and mostly from the front. */
export const FIRST_LIGHT: Light = { turn: -35, tilt: 50, strength: 0.6 };

export const newScene = (id: Id, name: string, size: SceneSize): Scene => ({
  id,
  name,
  ...size,
  layers: {},
  order: [],
  poster: Math.floor(size.length / 2),
  eye: FIRST_EYE,
  light: FIRST_LIGHT,
  guides: { x: [], y: [] },
  markers: [],
  routines: [],
  sets: [],
});

export const newProject = (id: Id, name: string, scenes: readonly Scene[]): Project => ({
  version: FORMAT_VERSION,
  id,
  name,
  scenes: Object.fromEntries(scenes.map((s) => [s.id, s])),
  order: scenes.map((s) => s.id),
  assets: {},
  swatches: [],
  eases: [],
  moves: [],
  effects: [],
  deliveries: [],
  versions: { columns: [], rows: [] },
});

interface LayerOptions {
  readonly position?: Point;
  readonly tag?: Tag;
}

const base = (scene: Scene, id: Id, name: string, o: LayerOptions) => ({
  id,
  name,
  from: 0,
  to: scene.length,
  locked: false,
  tucked: false,
  hidden: false,
  tag: o.tag ?? ('slate' as const),
  parent: null,
  blend: 'normal' as const,
  moves: [],
  params: stillAll({ position: o.position ?? [scene.width / 2, scene.height / 2] }),
});

/** A new layer spans its whole scene and stands in its middle. Items come with their groups' children among them. */
export const newDrawing = (
  scene: Scene,
  id: Id,
  name: string,
  items: readonly Item[],
  o: LayerOptions = {},
): DrawingLayer => {
  const inGroups = new Set(items.flatMap((item) => item.children ?? []));
  return {
    ...base(scene, id, name, o),
    kind: 'drawing',
    items: Object.fromEntries(items.map((item) => [item.id, item])),
    recipe: items.filter((item) => !inGroups.has(item.id)).map((item) => item.id),
  };
};

export const newController = (scene: Scene, id: Id, name: string, o: LayerOptions = {}): ControllerLayer => ({
  ...base(scene, id, name, o),
  kind: 'controller',
  group: false,
  knobs: {},
  panel: [],
});

/** A routine that goes through its steps once, its players one after another. */
export const newRoutine = (
  id: Id,
  name: string,
  steps: readonly RoutineStep[],
  players: readonly Id[],
  o: Partial<Omit<Routine, 'id' | 'name' | 'steps' | 'players'>> = {},
): Routine => ({
  id,
  name,
  steps,
  start: 0,
  stagger: 0,
  order: 'list',
  seed: 1,
  speed: 1,
  rounds: 1,
  forever: false,
  pingpong: false,
  ...o,
  players,
});

export const newItem = (id: Id, kind: string, values: { readonly [key: string]: Value } = {}): Item => ({
  id,
  kind,
  on: true,
  params: stillAll(values),
});

/** A drawing of one card that shows a picture, or plays a scene, its middle at the layer's origin. */
const showing =
  (kind: string, key: string) =>
  (scene: Scene, id: Id, name: string, shown: Id, o: LayerOptions = {}) =>
    newDrawing(scene, id, name, [newItem(`${id.slice(0, 56)}-${kind}`, kind, { [key]: shown })], o);

export const newPicture = showing('picture', 'asset');
export const newNest = showing('nest', 'scene');

/** What the layers of a scene are called. */
export const namesIn = ({ layers }: { readonly layers: { readonly [id: Id]: Pick<Layer, 'name'> } }): string[] =>
  Object.values(layers).map(({ name }) => name);

/** Gives each name that is asked for, or `name 2`, `name 3` ... where it is taken; what it gave is taken then. */
export const naming = (taken: Iterable<string>): ((name: string) => string) => {
  const used = new Set(taken);
  /** For each stem a number below which all are taken. */
  const next = new Map<string, number>();
  return (name) => {
    let free = name;
    if (used.has(name)) {
      const stem = name.replace(/ \d+$/, '');
      let n = next.get(stem) ?? 2;
      while (used.has(`${stem} ${n}`)) n++;
      next.set(stem, n);
      free = `${stem} ${n}`;
    }
    used.add(free);
    return free;
  };
};

/** `name`, or `name 2`, `name 3` ... where it is taken. */
export const uniqueName = (name: string, taken: Iterable<string>): string => naming(taken)(name);
