/** What rows, cards and menus do with mattes. */
import type { Id } from '@kite/core/document/types';
import { matteBy } from '@kite/core/edits/mattes';
import { toast } from '../../ui/toast';
import { type Editor, makeId } from '../store/editor';

/** Layers are cut by what another one shows, whose own picture is switched off. */
export const cutLayers = (editor: Editor, targets: readonly Id[], by: Id): void => {
  const { scene } = editor;
  const drawings = targets.filter((id) => scene.layers[id]?.kind === 'drawing' && id !== by);
  if (drawings.length > 0) editor.edit(matteBy(scene.id, by, drawings, makeId));
};

/** The frontmost of the selected layers cuts the others. */
export const cutByFront = (editor: Editor): void => {
  const { scene, state } = editor;
  const [by, ...others] = scene.order.filter((id) => state.selection.layers.includes(id));
  if (by === undefined || others.length === 0) {
    toast.info('Select the layer that is to cut and those behind it that it is to cut.');
    return;
  }
  cutLayers(editor, others, by);
  editor.select({ layers: others });
};
