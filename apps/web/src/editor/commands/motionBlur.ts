import { giveCards } from '@kite/core/edits/effects';
import { motionBlur } from '@kite/core/recipe/steps/motionBlur';
import { layersThatMove } from '@kite/core/scene/follows';
import type { Id } from '@kite/core/document/types';
import { toast } from '../../ui/toast';
import { type Editor, makeId } from '../store/editor';

const give = (editor: Editor, ids: readonly Id[], otherwise: string): void => {
  const { scene } = editor;
  const drawings = ids.filter((id) => scene.layers[id]?.kind === 'drawing' && !scene.layers[id].locked);
  if (drawings.length === 0) toast.info(otherwise);
  else editor.edit(giveCards(scene.id, drawings, motionBlur.kind, makeId));
};

/** Blurs the selected layers by their motion. */
export const blurMoving = (editor: Editor): void =>
  give(editor, editor.state.selection.layers, 'Select the layers that are to be blurred by their motion.');

/** Blurs all layers of the scene that move. */
export const blurAllThatMoves = (editor: Editor): void =>
  give(editor, layersThatMove(editor.scene), 'Nothing in this scene moves yet.');
