/** Shapes that are drawn into a drawing that is there. */
import { newItem } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id, Item, PathValue, Point, Value, Vertex } from '../document/types';
import { inverted, type Matrix, multiply, placed, type Placement, translation } from '../geometry/matrix';
import { pathOfOutline, vertexThrough } from '../motion/paths';
import { reader } from '../motion/reader';
import { bareSupplies } from '../recipe/evaluate';
import { group as groupKind } from '../recipe/group';
import { path as pathKind } from '../recipe/sources/path';
import { kindOf } from '../recipe/table';
import type { Program } from '../scene/compile';
import type { Fonts } from '../type/types';
import { drawingIn, type ItemDraft, NotFound } from './find';
import { decomposed, tidy, tidyPoint } from './place';
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

/** The one path that a shape has as it is drawn; null for several. */
const pathOf = (shape: Item, fonts: Fonts): PathValue | null => {
  const kind = kindOf(shape.kind);
  if (kind.role !== 'source' || !('outlines' in kind)) return null;
  const [outline, ...more] = kind.outlines(reader(kind.params, shape.params).at(0), bareSupplies(fonts));
  return outline && more.length === 0 ? pathOfOutline(outline) : null;
};

/**
 * A card, and what is in it, that lets a shape stand upright at a point of the scene, for a place whose pixels are those of the
 * scene through `m`: a group with the shape; where the place is slanted, which no group undoes, a path.
 */
export const uprightIn = (m: Matrix, at: Point, id: Id, shape: Item, fonts: Fonts): readonly [Item, ...Item[]] => {
  const upright = seenFrom(m, at);
  const { rotation, scale, slant } = decomposed(upright);
  const path = Math.abs(slant) > 1e-6 ? pathOf(shape, fonts) : null;
  if (path) {
    const { name = kindOf(shape.kind).label } = shape;
    return [{ ...newItem(id, pathKind.kind, { path: pathThrough(upright, path) }), name }];
  }
  const place: { [key: string]: Value } = { position: tidyPoint([upright[4], upright[5]]) };
  if (Math.abs(rotation) > 1e-6) place.rotation = tidy(rotation);
  if (scale.some((s) => Math.abs(s - 1) > 1e-6)) place.scale = tidyPoint(scale);
  return [{ ...newItem(id, groupKind.kind, place), children: [shape.id] }, shape];
};

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
      const [card, ...within] = uprightIn(m, at, groupId, shape, program.library.fonts);
      for (const item of within) drawingIn(draft, scene.id, layer).items[item.id] = item as ItemDraft;
      addItem(scene.id, layer, card, inside, index).change(draft);
    }
  },
});

/** A path card whose vertices are seen from a point of the scene, as it is where the pixels are those of the scene through `m`. */
const throughTo = (m: Matrix, at: Point, shape: Item): Item => {
  const path = shape.params.path && 'value' in shape.params.path ? (shape.params.path.value as PathValue) : null;
  if (!path) throw new NotFound('path', shape.id);
  return { ...shape, params: { ...shape.params, path: { value: pathThrough(seenFrom(m, at), path) } } };
};
