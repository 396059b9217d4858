/** Shapes that are drawn into a drawing that is there. */
import { newItem } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id, Item, PathValue, Point, Value, Vertex } from '../document/types';
import { inverted, type Matrix, multiply, placed, type Placement, translation } from '../geometry/matrix';
import { vertexThrough } from '../motion/paths';
import { group as groupKind } from '../recipe/group';
import { path as pathKind } from '../recipe/sources/path';
import { kindOf } from '../recipe/table';
import type { Program } from '../scene/compile';
import { drawingIn, type ItemDraft, NotFound } from './find';
import { decomposed, tidy, tidyPoint } from './place';
import { addItem } from './recipe';

/** A group that lets a shape stand upright at a point of the scene, for a place whose pixels are those of the scene through `m`. */
export const uprightIn = (m: Matrix, at: Point, id: Id, shape: Item): Item => {
  const back = inverted(m);
  if (!back) throw new RangeError('what is flattened to a line cannot be drawn on');
  const upright = multiply(back, translation(at[0], at[1]));
  const { rotation, scale } = decomposed(upright);
  const place: { [key: string]: Value } = { position: tidyPoint([upright[4], upright[5]]) };
  if (Math.abs(rotation) > 1e-6) place.rotation = tidy(rotation);
  if (scale.some((s) => Math.abs(s - 1) > 1e-6)) place.scale = tidyPoint(scale);
  return { ...newItem(id, groupKind.kind, place), children: [shape.id] };
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
      const group = uprightIn(m, at, groupId, shape);
      drawingIn(draft, scene.id, layer).items[shape.id] = shape as ItemDraft;
      addItem(scene.id, layer, group, inside, index).change(draft);
    }
  },
});

/** A path whose vertices are seen from a point of the scene, as it is where the pixels are those of the scene through `m`. */
const throughTo = (m: Matrix, at: Point, shape: Item): Item => {
  const back = inverted(m);
  const path = shape.params.path && 'value' in shape.params.path ? (shape.params.path.value as PathValue) : null;
  if (!back || !path) throw new RangeError('what is flattened to a line cannot be drawn on');
  const from = multiply(back, translation(at[0], at[1]));
  const vertices = path.vertices.map((v) => vertexThrough(from, v).map(tidy) as unknown as Vertex);
  return { ...shape, params: { ...shape.params, path: { value: { ...path, vertices } } } };
};
