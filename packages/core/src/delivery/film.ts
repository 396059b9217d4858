/** Scenes one after another as one scene, which every format renders as it does any other. */
import { newItem, newNest, newScene, stillAll } from '../document/make';
import type { Delivery, DrawingLayer, Id, Project, Properties, Scene } from '../document/types';
import { framesPerSecond } from '../time/rate';
import { LIMITS } from '../document/limits';
import { thousands } from '../document/text';
import { isOpaque } from './opaque';

/** The place of a scene in a film, in frames of the film. */
interface Shot {
  readonly scene: Scene;
  readonly from: number;
  readonly to: number;
}

/** Each begins `fade` frames before the one before it ends, or at half of the shorter one if that is sooner. */
const shotsOf = (scenes: readonly Scene[], { fade }: Pick<Delivery, 'fade'>): Shot[] => {
  const rate = framesPerSecond((scenes[0] as Scene).rate);
  const lengths = scenes.map((s) => Math.max(1, Math.round((s.length / framesPerSecond(s.rate)) * rate)));
  let end = 0;
  return scenes.map((scene, i) => {
    const length = lengths[i] as number;
    const before = i > 0 ? (lengths[i - 1] as number) : 0;
    const from = end - (i > 0 ? Math.min(fade, Math.floor(Math.min(length, before) / 2)) : 0);
    end = from + length;
    return { scene, from, to: end };
  });
};

const LINEAR = { kind: 'linear' } as const;

const ramp = (from: number, to: number, [first, last]: readonly [number, number]) => ({
  keys: [
    { frame: from, value: first, ease: LINEAR },
    { frame: to, value: last, ease: LINEAR },
  ],
});

/** Keyframes of the opacity: in while the one before ends, out where nothing that follows covers it. */
const opacityOf = (shots: readonly Shot[], i: number): Properties => {
  const { scene, from, to } = shots[i] as Shot;
  const [before, after] = [shots[i - 1], shots[i + 1]];
  const enters = before !== undefined && before.to > from;
  const leaves = after !== undefined && after.from < to && !(isOpaque(scene) && isOpaque(after.scene));
  if (enters && leaves) {
    const [rise, fall] = [ramp(from, before.to, [0, 1]), ramp(after.from, to, [1, 0])];
    return { opacity: { keys: [...rise.keys, ...fall.keys.filter(({ frame }) => frame > before.to)] } };
  }
  if (enters) return { opacity: ramp(from, before.to, [0, 1]) };
  return leaves ? { opacity: ramp(after.from, to, [1, 0]) } : {};
};

/** A scene of a film, in its middle and as large as it fits in. */
const layerOf = (film: Scene, shots: readonly Shot[], i: number): DrawingLayer => {
  const { scene, from, to } = shots[i] as Shot;
  const size = Math.min(film.width / scene.width, film.height / scene.height);
  const layer = newNest(film, `shot-${i + 1}`, scene.name, scene.id);
  const card = newItem('play', 'nest', { scene: scene.id, start: from, background: true });
  return {
    ...layer,
    from,
    to,
    items: { play: card },
    recipe: ['play'],
    params: { ...layer.params, ...stillAll({ scale: [size, size] }), ...opacityOf(shots, i) },
  };
};

/**
 * A film has the size, the rate and the ground of its first scene; the others are fitted into it, in time too. Throws a
 * RangeError where it would be longer than a scene may be.
 */
export const filmOf = (id: Id, name: string, scenes: readonly Scene[], delivery: Pick<Delivery, 'fade'>): Scene => {
  const first = scenes[0] as Scene;
  const shots = shotsOf(scenes, delivery);
  const length = (shots.at(-1) as Shot).to;
  if (length > LIMITS.length) {
    throw new RangeError(`“${name}” has ${thousands(length)} frames; the most is ${thousands(LIMITS.length)}`);
  }
  const { width, height, rate, background } = first;
  const film = newScene(id, name, { width, height, rate, length, background });
  const layers = shots.map((_, i) => layerOf(film, shots, i));
  return {
    ...film,
    poster: Math.min(first.poster, length - 1),
    layers: Object.fromEntries(layers.map((layer) => [layer.id, layer])),
    order: layers.map((layer) => layer.id).reverse(),
  };
};

/** What a delivery shows: its scene, or the film of its scenes. Throws a RangeError that says which scene is gone. */
export const sceneOfDelivery = (delivery: Delivery, { scenes }: Pick<Project, 'scenes'>): Scene => {
  const shown = delivery.scenes.map((id) => scenes[id]);
  if (shown.length === 0) throw new RangeError(`“${delivery.name}” shows no scene`);
  const there = shown.filter((scene) => scene !== undefined);
  if (there.length < shown.length) throw new RangeError(`“${delivery.name}” shows a scene that was deleted`);
  return there.length === 1
    ? (there[0] as Scene)
    : filmOf(`film-${delivery.id}`.slice(0, 64), delivery.name, there, delivery);
};
