/** A scene as it leaves its project for good: what is drawn of it, and nothing else. */
import { paramsOfKnob } from '../document/knobs';
import { formulasOn } from '../document/formulas';
import { type Params, PLACE } from '../document/params';
import type { DrawingLayer, Id, Item, Layer, Properties, Scene } from '../document/types';
import { paramsOf } from '../recipe/table';
import { allLayers } from '../scene/whole';

/** Whether anything in a scene, or in what it nests, is computed: formulas may read what is not shown, by its name. */
export const hasFormulas = (scene: Scene): boolean => allLayers(scene).some((layer) => formulasOn(layer).length > 0);

/** Without the values that are those which are missing. */
const leanParams = (params: Params, values: Properties): Properties =>
  Object.fromEntries(
    Object.entries(values).filter(([key, property]) => {
      const param = params[key];
      return !param || !('value' in property) || JSON.stringify(property.value) !== JSON.stringify(param.default);
    }),
  );

const without = <T extends object>(of: T, keys: readonly string[]): T =>
  Object.fromEntries(Object.entries(of).filter(([key]) => !keys.includes(key))) as T;

/** What no drawing asks for. */
const OF_LAYERS = ['locked', 'tucked', 'tag', 'moves'];
const OF_SCENES = ['poses', 'routines', 'guides', 'markers', 'poster'];
/** What formulas alone ask for. */
const NAMES = ['name'];

/** The cards that a list of cards leads to, those that are off and what stands in them left out. */
const cardsOn = (ids: readonly Id[], items: DrawingLayer['items']): readonly Item[] =>
  ids.flatMap((id) => {
    const item = items[id];
    return item?.on ? [item, ...cardsOn(item.children ?? [], items)] : [];
  });

const leanItems = ({ recipe, items }: DrawingLayer, computed: boolean): DrawingLayer['items'] =>
  Object.fromEntries(
    (computed ? Object.values(items) : cardsOn(recipe, items)).map((item) => [
      item.id,
      { ...without(item, computed ? [] : NAMES), params: leanParams(paramsOf(item.kind), item.params) },
    ]),
  );

const leanLayer = (layer: Layer, computed: boolean): Layer => {
  const own = {
    ...without(layer, computed ? OF_LAYERS : [...OF_LAYERS, ...NAMES]),
    params: leanParams(PLACE, layer.params),
  };
  if (own.kind === 'drawing') return { ...own, items: leanItems(own, computed) };
  const knobs = Object.entries(own.knobs).map(
    ([id, knob]) => [id, { ...knob, params: leanParams(paramsOfKnob(knob), knob.params) }] as const,
  );
  return { ...own, knobs: Object.fromEntries(knobs) };
};

const leanOne = (scene: Scene, computed: boolean): Scene => {
  const layers = Object.entries(scene.layers).map(([id, layer]) => [id, leanLayer(layer, computed)] as const);
  const nested = Object.entries(scene.nested ?? {}).map(([id, inner]) => [id, leanOne(inner, computed)] as const);
  return {
    ...without(scene, computed ? OF_SCENES : [...OF_SCENES, ...NAMES]),
    ...(!computed && { sets: [] }),
    layers: Object.fromEntries(layers),
    ...(scene.nested && { nested: Object.fromEntries(nested) }),
  };
};

/** A whole scene that draws the same: without default values, cards that are off, and what only its editor asks for. */
export const leanScene = (scene: Scene): Scene => leanOne(scene, hasFormulas(scene));
