/** Scenes whose knobs are turned from outside: by the settings of a nest that plays them. */
import { remembered } from '../document/remembered';
import { paramsOfKnob } from '../document/knobs';
import type { Id, Knob, Layer, Scene, Value } from '../document/types';
import { kindOfValue, fittedValue } from '../motion/kinds/table';
import { settingOf } from '../recipe/settings';
import { paramsOf } from '../recipe/table';
import type { Settings } from '../recipe/types';

/** Made once for the same layers: nests ask for each frame. */
const knobsAmong = remembered(
  (layers: Scene['layers']): ReadonlyMap<Id, Knob> =>
    new Map(
      Object.values(layers).flatMap((layer) =>
        layer.kind === 'controller' ? Object.values(layer.knobs).map((knob): [Id, Knob] => [knob.id, knob]) : [],
      ),
    ),
);

/** Every knob of a scene, by its id. */
export const knobsOf = ({ layers }: Pick<Scene, 'layers'>): ReadonlyMap<Id, Knob> => knobsAmong(layers);

/** The knob at a value, within its limits: instead of its keyframes and its formula; as it was for a value that is not of its kind. */
const turnedKnob = (knob: Knob, value: Value): Knob => {
  const own = paramsOfKnob(knob).value;
  const wide = paramsOf(settingOf(knob.kind)).value;
  if (!own || !wide || !kindOfValue(wide.kind).is(wide, value)) return knob;
  const { formulas: _none, ...rest } = knob;
  return { ...rest, params: { value: { value: fittedValue(own, value) } } };
};

const turnedLayer = (layer: Layer, settings: Settings): Layer => {
  if (layer.kind !== 'controller' || !Object.keys(layer.knobs).some((id) => settings[id] !== undefined)) return layer;
  const all = Object.entries(layer.knobs).map(([id, knob]) => {
    const value = settings[id];
    return [id, value === undefined ? knob : turnedKnob(knob, value)];
  });
  return { ...layer, knobs: Object.fromEntries(all) as typeof layer.knobs };
};

/** Of one scene, the most that are kept: as many nests of it may differ and still be compiled once. */
const MOST_KEPT = 256;
const keptOf = remembered<Scene, Map<string, Scene>>(() => new Map());

/** A scene with its knobs at these values: the same object for the same values. */
export const turned = (scene: Scene, settings: Settings): Scene => {
  if (Object.keys(settings).length === 0) return scene;
  const known = keptOf(scene);
  const key = JSON.stringify(settings);
  const before = known.get(key);
  // What was asked for last goes last.
  known.delete(key);
  const layers = Object.entries(scene.layers).map(([id, layer]) => [id, turnedLayer(layer, settings)]);
  const made = before ?? { ...scene, layers: Object.fromEntries(layers) as Scene['layers'] };
  known.set(key, made);
  if (known.size > MOST_KEPT) known.delete(known.keys().next().value as string);
  return made;
};
