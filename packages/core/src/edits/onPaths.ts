/** Parts of a text that lies along paths, each by itself where it stood. */
import type { DrawingLayer, Id, Item, Point } from '../document/types';
import { arcLength } from '../geometry/length';
import { mappedValues, shifted } from '../motion/keys';
import type { TextUnit } from '../motion/sampler';
import { bareSupplies, compileRecipe } from '../recipe/evaluate';
import { newRoom } from '../recipe/room';
import { along, type AlongValues, lineOf, OF_EACH, standingsOn } from '../recipe/steps/along';
import { kindOf } from '../recipe/table';
import type { PlacedPart } from '../recipe/types';
import type { Program } from '../scene/program';
import { cardsAbove, within, withoutCards } from './recipe';

/** The parts of texts where some cards of a layer put them. */
const partsAt = (program: Program, { id, items }: DrawingLayer, cards: readonly Id[], by: TextUnit, frame: number) =>
  compileRecipe(cards, items, bareSupplies(program.library.fonts), (item) => program.wiring.computing(id, item)).texts(
    by,
    frame,
    newRoom(),
  );

/** How a card lays texts along its path. */
interface Lying {
  readonly card: Id;
  readonly units: readonly PlacedPart[];
  /** By how much a part that goes by its own place is to be moved on and off, to stay where it is among the others. */
  readonly more: (unit: PlacedPart) => { readonly shift: number; readonly away: number };
  /** How much later than the first it moves, in whole frames. */
  readonly later: (unit: PlacedPart) => number;
}
const lyingBy = (program: Program, layer: DrawingLayer, card: Item, frame: number): Lying | null => {
  const shown = program.cardAt(layer.id, card.id, frame);
  const line = lineOf(program.flowAt(layer.id, card.children ?? [], frame));
  if (!shown || !line) return null;
  const { by, stands, stagger } = shown.values as AlongValues;
  const units = partsAt(program, layer, cardsAbove(layer, card.id), by, frame);
  const { lengthOf, ground } = standingsOn(line, units, stands);
  const total = arcLength(line);
  return {
    card: card.id,
    units,
    more: (unit) => ({ shift: (lengthOf(unit) - unit.base[0]) / total, away: ground }),
    later: (unit) => Math.round(units.indexOf(unit) * stagger),
  };
};

/** A card that lays a text along a path, for a part of it that is there alone. */
const keptAlong = (card: Item, { units, more, later }: Lying, { part, from }: PlacedPart): Item => {
  const unit = units.find((one) => one.part.card === part.card && one.from <= from && one.to > from);
  if (!unit) return card;
  const added = Object.entries(more(unit));
  const moved = added.map(([key, by]) => [key, mappedValues(card.params[key], 0, (value) => (value as number) + by)]);
  const params: Item['params'] = { ...card.params, ...Object.fromEntries(moved) };
  const timed = OF_EACH.flatMap((key) => (params[key] ? [[key, shifted(params[key], later(unit))] as const] : []));
  const computed = added.flatMap(([key, by]) => {
    const formula = card.formulas?.[key];
    return formula ? [[key, { ...formula, text: `(${formula.text}) + (${by.toFixed(6)})` }]] : [];
  });
  return {
    ...card,
    params: { ...params, ...Object.fromEntries(timed), stands: { value: 'own' } },
    ...(card.formulas && { formulas: { ...card.formulas, ...Object.fromEntries(computed) } }),
  };
};

/** A part of a text by itself, and where its middle is in the pixels of its layer. */
interface Alone {
  readonly layer: DrawingLayer;
  readonly middle: Point;
}

/**
 * What `alone`, which is a layer with one of its texts and without all else that it shows, is for each part of that; null where
 * nothing lays them along a path. What is drawn of a path is drawn by the part alone that `draws` it.
 */
export const aloneOnPaths = (
  program: Program,
  layer: DrawingLayer,
  alone: DrawingLayer,
  text: Id,
  by: TextUnit,
  frame: number,
): ((part: number, draws: boolean) => Alone | null) => {
  const cards = Object.values(alone.items).filter(({ kind, on }) => on && kind === along.kind);
  if (cards.length === 0) return () => null;
  const paints = cards.flatMap(({ id }) => within(alone.items, id)).filter(({ kind }) => kindOf(kind).role === 'paint');
  const bare = withoutCards(alone, new Set(paints.map(({ id }) => id)));
  const lying = cards.flatMap((card) => lyingBy(program, layer, card, frame) ?? []);
  const stood = partsAt(program, layer, layer.recipe, by, frame).filter(({ part }) => part.card === text);
  return (index, draws) => {
    const part = stood.find((one) => one.part.index === index);
    if (!part) return null;
    const own = draws ? alone : bare;
    const kept = lying.map((how) => keptAlong(own.items[how.card]!, how, part));
    const items = { ...own.items, ...Object.fromEntries(kept.map((card) => [card.id, card])) };
    return { layer: { ...own, items }, middle: part.middle };
  };
};
