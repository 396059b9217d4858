/** Area operations that do not move, worked out before delivery: their outlines stand as paths where the cards stood. */
import { still } from '../document/make';
import type { DrawingLayer, Id, Item, Layer, Scene, Vertex } from '../document/types';
import { cubicCount, isLine, type Outline } from '../geometry/outline';
import { bareSupplies, compileRecipe } from '../recipe/evaluate';
import { newRoom } from '../recipe/room';
import { group } from '../recipe/groups/group';
import { kindOf } from '../recipe/table';
import type { Fonts } from '../type/types';
import { hasFormulas } from './lean';

/** The kinds of card that work areas out: what these need is most of what a player of shapes weighs. */
const OPERATIONS: ReadonlySet<string> = new Set(['combine', 'offset']);

const corner = (x: number, y: number): Vertex => [x, y, 0, 0, 0, 0];

/** The card of a polygon; null for an outline of another kind. */
const pathCard = (id: Id, { closed, points }: Outline): Item | null => {
  const lines = Array.from({ length: cubicCount({ closed, points }) }, (_, i) => i);
  if (!closed || !lines.every((i) => isLine(points, i))) return null;
  const vertices = lines.map((i) => corner(points[i * 6]!, points[i * 6 + 1]!));
  return { id, kind: 'path', on: true, params: { path: still({ closed, vertices }) } };
};

/** Cards in their order, and all that stand in them. */
interface Cards {
  readonly ids: readonly Id[];
  readonly items: DrawingLayer['items'];
}

/** The same with the last operation, and what it is made from, as paths; as it is where that moves, or is more than outlines. */
const asPaths = ({ ids, items }: Cards, last: number, fonts: Fonts): Cards => {
  const above = ids.slice(0, last + 1);
  const card = compileRecipe(above, items, bareSupplies(fonts));
  if (!card.constant) return { ids, items };
  const { shapes, marks } = card.at(0, newRoom());
  if (marks.length > 0 || shapes.some(({ alpha }) => alpha !== 1)) return { ids, items };
  const outlines = shapes.flatMap((shape) => shape.outlines);
  const paths = outlines.flatMap((outline, i) => pathCard(`${above[last]}-${i}`, outline) ?? []);
  if (paths.length < outlines.length) return { ids, items };
  return {
    ids: [...paths.map(({ id }) => id), ...ids.slice(last + 1)],
    items: { ...items, ...Object.fromEntries(paths.map((item) => [item.id, item])) },
  };
};

/** From the last card up, as far as no step takes one outline after another where it took all as one shape. */
const settledCards = (cards: Cards, fonts: Fonts): Cards => {
  const ids = cards.ids.filter((id) => cards.items[id]?.on);
  let { items } = cards;
  for (let i = ids.length - 1; i >= 0; i--) {
    const item = items[ids[i] as Id] as Item;
    if (OPERATIONS.has(item.kind)) return asPaths({ ids, items }, i, fonts);
    if (kindOf(item.kind).role === 'step') break;
    if (item.kind !== group.kind) continue;
    const inner = settledCards({ ids: item.children ?? [], items }, fonts);
    items = { ...inner.items, [item.id]: { ...item, children: inner.ids } };
  }
  return { ids, items };
};

const settledLayer = (layer: DrawingLayer, fonts: Fonts): DrawingLayer => {
  const { ids, items } = settledCards({ ids: layer.recipe, items: layer.items }, fonts);
  return { ...layer, recipe: ids, items };
};

/** A whole scene that draws the same. Formulas may read the cards that are worked out: a scene with any stays as it is. */
export const settled = (scene: Scene, fonts: Fonts): Scene => {
  if (hasFormulas(scene)) return scene;
  const one = (of: Scene): Scene => ({
    ...of,
    layers: Object.fromEntries(
      Object.entries(of.layers).map(([id, layer]): [Id, Layer] => [
        id,
        layer.kind === 'drawing' ? settledLayer(layer, fonts) : layer,
      ]),
    ),
    ...(of.nested && { nested: Object.fromEntries(Object.entries(of.nested).map(([id, inner]) => [id, one(inner)])) }),
  });
  return one(scene);
};
