/** What menus do with nests. */
import type { DrawingLayer, Id, Scene } from '@kite/core/document/types';
import { nest } from '@kite/core/recipe/sources/nest';
import { addNest, nestLayers } from '@kite/core/edits/nests';
import { cutIntoShots, evenCuts } from '@kite/core/edits/shots';
import { readingsIn } from '@kite/core/scene/follows';
import { frameInside } from '@kite/core/scene/inPlace';
import { together } from '@kite/core/document/patches';
import { toast } from '../../ui/toast';
import { surroundingsOf } from '../store/inPlace';
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

/** Cuts the selected drawings in time into four shots of even length, or at the scene's markers; the shots are selected. */
const cutShots = (editor: Editor, label: string, cutsOf: (layer: DrawingLayer) => readonly number[]): void => {
  const { scene, state } = editor;
  const layers = scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    return state.selection.layers.includes(id) && layer?.kind === 'drawing' && !layer.locked ? [layer] : [];
  });
  if (layers.length === 0) {
    toast.info('Select the nest or the picture that is to be cut into shots.');
    return;
  }
  const before = new Set(scene.order);
  const edits = layers.map((layer) => cutIntoShots(scene.id, layer.id, cutsOf(layer), makeId));
  if (!editor.edit(together(label, edits))) return;
  const made = editor.scene.order.filter((id) => !before.has(id));
  editor.select({ layers: [...layers.map(({ id }) => id), ...made] });
};
export const cutFourShots = (editor: Editor): void => cutShots(editor, 'Cut into shots', (layer) => evenCuts(layer, 4));
export const cutShotsAtMarkers = (editor: Editor): void =>
  cutShots(editor, 'Cut into shots at the markers', () => editor.scene.markers.map(({ frame }) => frame));

/** Plays another scene in the scene that is open, from the playhead on. */
export const nestScene = (editor: Editor, inner: Id): void => {
  const id = makeId();
  if (editor.edit(addNest(editor.scene.id, inner, id, editor.state.frame))) editor.select({ layers: [id] });
};

/** The card by which a layer plays another scene, and that scene; null where it plays none. */
const nestIn = (editor: Editor, id: Id): { readonly card: Id; readonly inner: Scene } | null => {
  const layer = editor.scene.layers[id];
  const card =
    layer?.kind === 'drawing' ? Object.values(layer.items).find((item) => item.kind === nest.kind) : undefined;
  const shown = card && editor.program.cardAt(id, card.id, editor.state.frame);
  const inner = shown ? editor.state.doc.scenes[shown.values.scene as Id] : undefined;
  return card && inner ? { card: card.id, inner } : null;
};

/** Opens the scene that a layer plays in its place, at the frame of it that shows; false where it plays none. */
export const openNest = (editor: Editor, layer: Id): boolean => {
  const own = nestIn(editor, layer);
  if (!own) return false;
  const { frame } = editor.state;
  const at = { layer, card: own.card };
  const inside = frameInside(editor.program, at, frame, own.inner) ?? 0;
  editor.showScene(own.inner.id, { frame: Math.round(inside), within: { ...at, scene: editor.scene.id, frame } });
  return true;
};

/** Back to the scene around, at the frame of it that was seen, with the nest selected. */
export const leaveNest = (editor: Editor): void => {
  const { within } = editor.state;
  if (!within) return;
  const frame = surroundingsOf(editor)?.frame ?? within.frame;
  editor.showScene(within.scene);
  editor.setFrame(frame);
  if (editor.scene.layers[within.layer]) editor.select({ layers: [within.layer] });
};
