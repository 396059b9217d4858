/** Layers compiled one by one: where each is, and what it draws. What did not change is not compiled again. */
import { lastMade, remembered } from '../document/remembered';
import type { DrawingLayer, Layer } from '../document/types';
import type { Wiring } from '../formula/wiring';
import { samplerOf } from '../motion/sampler';
import { type Placement, placementOf } from '../properties/placement';
import { compileRecipe, stampsOf } from '../recipe/evaluate';
import { needsOf } from '../recipe/needs';
import { type Around, MOST_WORK, newRoom, type Picture, SHORTAGES } from '../recipe/room';
import { below } from '../recipe/sources/below';
import type { Supplies } from '../recipe/types';
import type { Fonts } from '../type/types';
import { fontProblems } from './fonts';
import type { Problem } from './program';

/** What a layer draws at a frame. */
export interface Drawn extends Picture {
  readonly problems: readonly Problem[];
}

export interface CompiledLayer {
  readonly place: Placement;
  readonly marks: (frame: number, around: Around) => Drawn;
}

/** What a layer costs that draws nothing. */
const PER_LAYER = 10;
const NOTHING: Drawn = { marks: [], problems: [], work: PER_LAYER };

/** What has been compiled with a set of fonts; layers and recipes that do not change are not compiled again. */
const newlyCompiled = () => ({
  /** By the items of a drawing. */
  recipes: lastMade<DrawingLayer['items'], CompiledLayer['marks']>(),
  layers: lastMade<Layer, CompiledLayer>(),
});
const compiledWith = remembered<Fonts, ReturnType<typeof newlyCompiled>>(newlyCompiled);

const recipeMarks = (
  layer: DrawingLayer,
  supplies: Supplies,
  wiring: Wiring,
  from: readonly unknown[],
): CompiledLayer['marks'] =>
  compiledWith(supplies.fonts).recipes(layer.items, [layer.recipe, ...from], () => {
    const recipe = compileRecipe(layer.recipe, layer.items, supplies, (item) => wiring.computing(layer.id, item));
    const fonts = fontProblems(layer, supplies.fonts);
    return (frame, around) => {
      const room = newRoom(around);
      const flow = recipe.at(frame, room);
      const told = [...room.told, ...(room.short ? [SHORTAGES[room.short]] : [])];
      const problems = told.length === 0 ? fonts : [...fonts, ...told.map((message) => ({ layer: layer.id, message }))];
      return { marks: flow.marks, problems, work: PER_LAYER + MOST_WORK - room.work };
    };
  });

export const compileLayer = (layer: Layer, supplies: Supplies, wiring: Wiring): CompiledLayer => {
  const from = [...wiring.allOf(layer), ...stampsOf(needsOf(layer).asks, supplies)];
  return compiledWith(supplies.fonts).layers(layer, from, () => ({
    place: placementOf(layer.params, wiring.computing(layer.id)),
    marks: layer.kind === 'drawing' ? recipeMarks(layer, supplies, wiring, from) : () => NOTHING,
  }));
};

/** Whether what is behind a layer is shown by the layer itself, and not by itself as well. */
export const standsInstead = (layer: Layer): boolean =>
  needsOf(layer).asks.behind &&
  layer.kind === 'drawing' &&
  Object.values(layer.items).some(
    ({ kind, on, params }) =>
      kind === below.kind && on && samplerOf(below.params.stays, params.stays).at(0) === 'instead',
  );
