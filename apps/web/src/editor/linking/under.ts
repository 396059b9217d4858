/** What a link is dragged to. */
import type { Id } from '@kite/core/document/types';
import { layerAt } from '../canvas/hit';
import { toScene, viewOn } from '../canvas/view';
import type { Editor } from '../store/editor';

/** A property, or a layer by its row or by its picture. */
export interface Under {
  readonly layer: Id;
  readonly item?: Id;
  readonly key?: string;
}

const onPicture = (editor: Editor, area: Element, x: number, y: number): Under | null => {
  const box = area.getBoundingClientRect();
  const view = viewOn(editor.state, box);
  const hit = layerAt(editor, toScene(view, [x - box.left, y - box.top]), 4 / view.zoom);
  if (hit !== null) return { layer: hit };
  return null;
};

/** What is under a point of the page. */
export const underPoint = (editor: Editor, x: number, y: number): Under | null => {
  const at = document.elementFromPoint(x, y);
  const property = at?.closest<HTMLElement>('[data-property]')?.dataset.property;
  if (property) return JSON.parse(property) as Under;
  const layer = at?.closest<HTMLElement>('[data-layer]')?.dataset.layer;
  if (layer) return { layer };
  const area = at?.closest('[data-area="canvas"]');
  return area ? onPicture(editor, area, x, y) : null;
};
