/** The card whose own handles the canvas shows. */
import type { DrawingLayer, Id, Item, Point, PropertyRef } from '@kite/core/document/types';
import { applyThrough, type Through, throughBack, throughBoth } from '@kite/core/geometry/through';
import type { Editor } from '../../store/editor';
import type { View } from '../../store/workspace';
import { toScene, viewMatrix } from '../view';

export interface EditedCard {
  readonly layer: DrawingLayer;
  readonly item: Item;
  readonly values: { readonly [key: string]: unknown };
  /** From the card's pixels to the canvas area's. */
  readonly toArea: Through;
  /** From the area's pixels to the card's. */
  readonly fromArea: (p: Point) => Point;
  /** From the scene's pixels to the card's. */
  readonly fromScene: (p: Point) => Point;
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
  const shown = editor.program.cardAt(layer.id, item.id, frame);
  const back = shown && throughBack(shown.through);
  if (!shown || !back) return null;
  return {
    layer,
    item,
    values: shown.values,
    toArea: throughBoth(viewMatrix(view), shown.through),
    fromArea: (p) => applyThrough(back, toScene(view, p)),
    fromScene: (p) => applyThrough(back, p),
    ref: (key) => ({ scene: scene.id, layer: layer.id, item: item.id, key }),
  };
};
