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

type Cards = Pick<DrawingLayer, 'items' | 'recipe'>;

const leanCard = (item: Item): Item => ({ ...item, params: leanParams(paramsOf(item.kind), item.params) });

/** What formulas read, they read by its id, whether it is on or not. */
const computedCards = ({ recipe, items }: Cards): Cards => ({
  recipe,
  items: Object.fromEntries(Object.values(items).map((item) => [item.id, leanCard(item)])),
});

/** Named by their order: only their own layer asks for them, and what every layer says packs to nothing. */
const shownCards = ({ recipe, items }: Cards): Cards => {
  const cards = cardsOn(recipe, items);
  const names = new Map(cards.map(({ id }, i) => [id, `c${i}`]));
  const named = (ids: readonly Id[]): readonly Id[] => ids.flatMap((id) => names.get(id) ?? []);
  const own = cards.map((item): Item => {
    const { children } = item;
    return {
      ...leanCard(without(item, NAMES)),
      id: names.get(item.id) as Id,
      ...(children && { children: named(children) }),
    };
  });
  return { recipe: named(recipe), items: Object.fromEntries(own.map((item) => [item.id, item])) };
};

const leanLayer = (layer: Layer, computed: boolean): Layer => {
  const own = {
    ...without(layer, computed ? OF_LAYERS : [...OF_LAYERS, ...NAMES]),
    params: leanParams(PLACE, layer.params),
  };
  if (own.kind === 'drawing') return { ...own, ...(computed ? computedCards : shownCards)(own) };
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
