/** What is done with the vertices of a path. */
import type { Id, PathValue, Point, PropertyRef } from '@kite/core/document/types';
import { reshapePath } from '@kite/core/edits/paths';
import { applyThrough } from '@kite/core/geometry/through';
import { withoutVertices } from '@kite/core/motion/paths';
import type { Editor } from '../../store/editor';
import type { View } from '../../store/workspace';
import { toScene } from '../view';
import { editedCard } from './editedCard';

/** Opens the path of a layer for its vertices to be moved; false where it has none. */
export const openPath = (editor: Editor, layerId: Id): boolean => {
  const layer = editor.scene.layers[layerId];
  const path = layer?.kind === 'drawing' ? Object.values(layer.items).find((i) => i.kind === 'path') : undefined;
  if (!path) return false;
  editor.select({ layers: [layerId], card: path.id });
  return true;
};

/** The vertices of the open path card, in the scene's pixels; null while none is open. */
export const shapedVertices = (editor: Editor, view: View): Point[] | null => {
  const card = editedCard(editor, view);
  if (card?.item.kind !== 'path') return null;
  return (card.values.path as PathValue).vertices.map((v) => toScene(view, applyThrough(card.toArea, [v[0], v[1]])));
};

/** Changes the number or order of vertices, at every keyframe alike. */
export const reshape = (
  editor: Editor,
  ref: PropertyRef,
  label: string,
  change: (path: PathValue) => PathValue,
): void => void editor.edit(reshapePath(ref, label, editor.state.frame, change));

export const removeVertices = (editor: Editor, ref: PropertyRef, path: PathValue): void => {
  const gone = new Set(editor.state.vertices);
  if (gone.size === 0 || path.vertices.length - gone.size < 2) return;
  reshape(editor, ref, gone.size === 1 ? 'Remove a vertex' : 'Remove vertices', (p) => withoutVertices(p, gone));
  editor.set({ vertices: [] });
};
