/** Shapes that are drawn into a drawing that is there. */
import { newItem, type MakeId } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id, Item, PathValue, Point, Vertex } from '../document/types';
import { inverted, type Matrix, multiply, placed, type Placement, translation } from '../geometry/matrix';
import { vertexThrough } from '../motion/paths';
import { group as groupKind } from '../recipe/groups/group';
import { path as pathKind } from '../recipe/sources/path';
import { kindOf } from '../recipe/table';
import type { Program } from '../scene/program';
import { drawingIn, NotFound } from './find';
import { placesFor, tidy } from './place';
import { addItem } from './recipe';

/** From what is seen from a point of the scene to a place whose pixels are those of the scene through `m`. */
const seenFrom = (m: Matrix, [x, y]: Point): Matrix => {
  const back = inverted(m);
  if (!back) throw new RangeError('what is flattened to a line cannot be drawn on');
  return multiply(back, translation(x, y));
};

const pathThrough = (m: Matrix, path: PathValue): PathValue => ({
  ...path,
  vertices: path.vertices.map((v) => vertexThrough(m, v).map(tidy) as unknown as Vertex),
});

/**
 * Groups in each other, the outermost first, and in the innermost some cards: these stand as they would outside, where the
 * groups' own pixels are those of `m`.
 */
export const inGroups = (
  m: Matrix,
  cards: readonly Id[],
  outermost: Id,
  makeId: MakeId,
): readonly [Item, ...Item[]] => {
  const groups = placesFor(m).map((place, i) => newItem(i === 0 ? outermost : makeId(), groupKind.kind, place));
  const held = (i: number) => (i === groups.length - 1 ? cards : [(groups[i + 1] as Item).id]);
  return groups.map((group, i): Item => ({ ...group, children: held(i) })) as [Item, ...Item[]];
};

/**
 * Groups that let a shape stand upright at a point of the scene, and the shape, for a place whose pixels are those of the scene
 * through `m`.
 */
export const uprightIn = (
  m: Matrix,
  at: Point,
  outermost: Id,
  shape: Item,
  makeId: MakeId,
): readonly [Item, ...Item[]] => [...inGroups(seenFrom(m, at), [shape.id], outermost, makeId), shape];

/**
 * A shape among the cards of a group or a mask, upright at a point of the scene, above what paints there. A path goes there as it
 * is; any other shape in a group of its own, by which it is placed.
 */
export const drawInside = (
  program: Program,
  layer: Id,
  inside: Id,
  groupId: Id,
  shape: Item,
  at: Point,
  frame: number,
  makeId: MakeId,
): Edit => ({
  label: 'Draw a card',
  change: (draft) => {
    const { items } = plain<DrawingLayer>(drawingIn(draft, program.scene.id, layer));
    const holder = items[inside];
    const shown = program.cardAt(layer, inside, frame);
    if (!holder || !shown) throw new NotFound('card', inside);
    const m =
      holder.kind === groupKind.kind
        ? multiply(shown.matrix, placed(shown.values as unknown as Placement))
        : shown.matrix;
    const children = holder.children ?? [];
    const paint = children.findIndex((id) => kindOf(items[id]?.kind ?? groupKind.kind).role === 'paint');
    const index = paint < 0 ? children.length : paint;
    const { scene } = program;
    if (shape.kind === pathKind.kind) addItem(scene.id, layer, throughTo(m, at, shape), inside, index).change(draft);
    else {
      const [card, ...within] = uprightIn(m, at, groupId, shape, makeId);
      addItem(scene.id, layer, card, inside, index, within).change(draft);
    }
  },
});

/** A path card whose vertices are seen from a point of the scene, as it is where the pixels are those of the scene through `m`. */
const throughTo = (m: Matrix, at: Point, shape: Item): Item => {
  const path = shape.params.path && 'value' in shape.params.path ? (shape.params.path.value as PathValue) : null;
  if (!path) throw new NotFound('path', shape.id);
  return { ...shape, params: { ...shape.params, path: { value: pathThrough(seenFrom(m, at), path) } } };
};
