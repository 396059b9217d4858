/** Writing layers on by strokes. */
import { toast } from '../../ui/toast';
import type { Editor } from '../store/editor';

/** Asks how the selected drawings are written on, in the order of the list. */
export const writeOn = (editor: Editor): void => {
  const { scene, state } = editor;
  const layers = scene.order.filter((id) => {
    const layer = scene.layers[id];
    return state.selection.layers.includes(id) && layer?.kind === 'drawing' && !layer.locked;
  });
  if (layers.length === 0) toast.info('Select the shapes or the words that are to be written on.');
  else editor.set({ revealing: layers });
};
