/** What menus do with nests. */
import type { Id } from '@kite/core/document/types';
import { needsOf } from '@kite/core/recipe/needs';
import { addNest, nestLayers } from '@kite/core/edits/nests';
import { readingsIn } from '@kite/core/scene/follows';
import { together } from '@kite/core/document/patches';
import { toast } from 'sonner';
import { baking } from './formulas';
import { type Editor, makeId } from '../store/editor';

/** Puts the selected layers into a scene of their own, which a nest plays in their place. */
export const nestSelection = (editor: Editor): void => {
  const { scene } = editor;
  const ids = scene.order.filter((id) => editor.state.selection.layers.includes(id) && !scene.layers[id]?.locked);
  if (ids.length === 0) return;
  const before = new Set(scene.order);
  const only = ids.length === 1 ? scene.layers[ids[0] as Id]?.name : undefined;
  const nesting = nestLayers(scene.id, ids, only ?? `${scene.name} part`, editor.state.frame, makeId);
  // Formulas do not reach into other scenes: what reads across the border keeps its motion as keyframes.
  const inside = new Set(ids);
  const across = readingsIn(scene).filter(({ by, reads }) =>
    reads.some((r) => inside.has(r.layer) !== inside.has(by.layer)),
  );
  const baked = across.flatMap(({ by }) => baking(editor, by, null) ?? []);
  if (!editor.edit(together(nesting.label, [...baked, nesting]))) return;
  if (baked.length > 0) {
    toast.info(
      `${baked.length === 1 ? 'A formula that reads' : `${baked.length} formulas that read`} across the nest’s border became keyframes.`,
    );
  }
  editor.select({ layers: editor.scene.order.filter((id) => !before.has(id)) });
};

/** Plays another scene in the scene that is open. */
export const nestScene = (editor: Editor, inner: Id): void => {
  const id = makeId();
  if (editor.edit(addNest(editor.scene.id, inner, id))) editor.select({ layers: [id] });
};

/** Goes into the scene that a layer plays; false where it plays none. */
export const openNest = (editor: Editor, id: Id): boolean => {
  const layer = editor.scene.layers[id];
  const [inner] = layer ? needsOf(layer).scenes : [];
  if (inner === undefined) return false;
  editor.showScene(inner);
  return true;
};
