/** The card whose own handles the canvas shows. */
import type { Id, Item, Point, PropertyRef } from '@kite/core/document/types';
import { apply, inverted, type Matrix, multiply } from '@kite/core/geometry/matrix';
import { reader } from '@kite/core/motion/reader';
import { cardMatrix } from '@kite/core/recipe/evaluate';
import { kindOf } from '@kite/core/recipe/table';
import type { Editor } from '../store/editor';
import type { View } from '../store/state';
import { toScene, viewMatrix } from './view';

export interface EditedCard {
  readonly item: Item;
  readonly values: { readonly [key: string]: unknown };
  /** From the card's pixels to the canvas area's. */
  readonly toArea: Matrix;
  /** From the area's pixels to the card's. */
  readonly fromArea: (p: Point) => Point;
  readonly ref: (key: string) => PropertyRef;
}

/** The open card of the one selected layer, with the way from its pixels to the canvas; null where there is none to edit. */
export const editedCard = (editor: Editor, view: View): EditedCard | null => {
  const { selection, frame, playing } = editor.state;
  const { scene } = editor;
  const layer = selection.layers.length === 1 ? scene.layers[selection.layers[0] as Id] : undefined;
  if (playing || layer?.kind !== 'drawing' || layer.locked || selection.card === null) return null;
  const item = layer.items[selection.card];
  if (!item) return null;
  const world = multiply(editor.program.matrixAt(layer.id, frame), cardMatrix(layer.items, item.id, frame));
  const back = inverted(world);
  if (!back) return null;
  return {
    item,
    values: reader(kindOf(item.kind).params, item.params, editor.program.wiring.computing(layer.id, item.id)).at(frame),
    toArea: multiply(viewMatrix(view), world),
    fromArea: (p) => apply(back, toScene(view, p)),
    ref: (key) => ({ scene: scene.id, layer: layer.id, item: item.id, key }),
  };
};
