/** What menus do with nests. */
import type { Id } from '@kite/core/document/types';
import { addNest, nestLayers, setNest } from '@kite/core/edits/nests';
import type { Edit } from '@kite/core/document/patches';
import { toast } from 'sonner';
import { type Editor, makeId } from './store/editor';

/** Makes an edit that may be refused; says why where it is. */
export const attempt = (editor: Editor, edit: Edit): boolean => {
  try {
    editor.edit(edit);
    return true;
  } catch (error) {
    editor.abandon();
    toast.error(error instanceof Error ? error.message : String(error));
    return false;
  }
};

/** Puts the selected layers into a scene of their own, which a nest plays in their place. */
export const nestSelection = (editor: Editor): void => {
  const { scene } = editor;
  const ids = scene.order.filter((id) => editor.state.selection.layers.includes(id) && !scene.layers[id]?.locked);
  if (ids.length === 0) return;
  const before = new Set(scene.order);
  const only = ids.length === 1 ? scene.layers[ids[0] as Id]?.name : undefined;
  if (!attempt(editor, nestLayers(scene.id, ids, only ?? `${scene.name} part`, editor.state.frame, makeId))) return;
  editor.select({ layers: editor.scene.order.filter((id) => !before.has(id)) });
};

/** Plays another scene in the scene that is open. */
export const nestScene = (editor: Editor, inner: Id): void => {
  const id = makeId();
  if (attempt(editor, addNest(editor.scene.id, inner, id))) editor.select({ layers: [id] });
};

export const playInNest = (editor: Editor, layer: Id, inner: Id): void =>
  void attempt(editor, setNest(editor.scene.id, layer, { scene: inner }));

/** Goes into the scene that a nest plays; false for other layers. */
export const openNest = (editor: Editor, id: Id): boolean => {
  const layer = editor.scene.layers[id];
  if (layer?.kind !== 'nest') return false;
  editor.showScene(layer.scene);
  return true;
};
