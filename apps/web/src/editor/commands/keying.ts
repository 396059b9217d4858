/** What menus, buttons and shortcuts do to keyframes and to the time of layers. */
import type { PropertyRef } from '@kite/core/document/types';
import { keyedCurvesOf } from '@kite/core/properties/find';
import {
  addKeys,
  type CopiedKeys,
  copiedKeys,
  keysOfLayers,
  pasteKeys,
  repeatFirstKeys,
  reverseKeys,
  setSmooth,
} from '@kite/core/edits/keyframes';
import { addMarker } from '@kite/core/edits/markers';
import { extendLayers, reverseLayers, splitLayers } from '@kite/core/edits/timing';
import { uniqueName } from '@kite/core/document/make';
import { toast } from '../../ui/toast';
import { type Editor, makeId } from '../store/editor';

/** The selected layers that are not locked. */
const freeLayers = (editor: Editor): string[] =>
  editor.scene.order.filter((id) => editor.state.selection.layers.includes(id) && !editor.scene.layers[id]?.locked);

const noLayers = () => toast.info('Select the layers first, in the list or on the canvas.');

/** Keyframes at the playhead on properties, which are selected; an open card stays open. */
export const keyAll = (editor: Editor, refs: readonly PropertyRef[]): void => {
  const { frame, selection } = editor.state;
  editor.edit(addKeys(refs, frame));
  editor.select({ ...selection, keys: refs.map((ref) => ({ ref, frames: [frame] })) });
};

/** Keyframes at the playhead for everything that is animated on the selected layers. */
export const keyAnimated = (editor: Editor): void => {
  if (freeLayers(editor).length === 0) return void noLayers();
  const refs = animatedOn(editor);
  if (refs.length > 0) keyAll(editor, refs);
  else toast.info('Nothing is animated on these layers yet: choose what to key in the menu beside the ruler.');
};

/** Keyframes at the playhead for some properties of the place of each selected layer. */
export const keyPlace = (editor: Editor, keys: readonly string[]): void => {
  const layers = freeLayers(editor);
  if (layers.length === 0) return void noLayers();
  keyAll(
    editor,
    layers.flatMap((layer) => keys.map((key) => ({ scene: editor.scene.id, layer, key }))),
  );
};

/** Selects every keyframe of the selected layers. */
export const selectAllKeys = (editor: Editor): void => {
  const { layers } = editor.state.selection;
  const keys = keysOfLayers(editor.scene, layers);
  if (keys.length === 0) return;
  editor.setOpened(layers, true);
  editor.select({ layers, keys });
};

export const reverseSelection = (editor: Editor): void => {
  const { keys } = editor.state.selection;
  if (keys.length > 0) editor.edit(reverseKeys(keys));
  else if (freeLayers(editor).length > 0) editor.edit(reverseLayers(editor.scene.id, freeLayers(editor)));
};

/** Everything that is animated on the selected layers. */
const animatedOn = (editor: Editor): PropertyRef[] =>
  freeLayers(editor).flatMap((id) => {
    const layer = editor.scene.layers[id];
    return layer ? keyedCurvesOf(editor.scene.id, layer) : [];
  });

/** The first keyframes of the chosen properties, or of all that is animated on the selected layers, again on the last frame of their scene. */
export const repeatFirst = (editor: Editor): void => {
  const { keys } = editor.state.selection;
  const refs = keys.length > 0 ? keys.map((c) => c.ref) : animatedOn(editor);
  if (refs.length > 0) editor.edit(repeatFirstKeys(refs));
  else noLayers();
};

export const smoothSelection = (editor: Editor, smooth: boolean): void => {
  const points = editor.state.selection.keys.filter((c) => c.ref.key === 'position' && c.ref.part === undefined);
  if (points.length > 0) editor.edit(setSmooth(points, smooth));
};

/** Kept beside the copied layers: what was copied last is pasted. */
export const copySelectedKeys = (editor: Editor): { readonly keys: ReturnType<typeof copiedKeys> } | null => {
  const { keys } = editor.state.selection;
  return keys.length > 0 ? { keys: copiedKeys(editor.state.doc, keys) } : null;
};

/** Pastes keyframes at the playhead: onto the selected layers, or onto the ones that they came from. */
export const pasteCopiedKeys = (
  editor: Editor,
  copied: readonly { readonly layer: string; readonly curves: readonly CopiedKeys[] }[],
): void => {
  const own = copied.map((c) => c.layer).filter((id) => editor.scene.layers[id]);
  const chosen = freeLayers(editor);
  const onto = chosen.length > 0 ? chosen : own;
  if (onto.length === 0) return void noLayers();
  const { edit, choices, left } = pasteKeys(editor.scene, copied, onto, editor.state.frame);
  if (choices.length > 0) {
    editor.edit(edit);
    editor.select({ layers: onto, keys: choices });
  }
  if (left > 0) {
    toast.info(
      `${left} propert${left === 1 ? 'y' : 'ies'} found no place: these layers have no such card, or x and y are apart there.`,
    );
  }
};

export const splitAtPlayhead = (editor: Editor): void => {
  const ids = freeLayers(editor).filter((id) => {
    const layer = editor.scene.layers[id];
    return layer && layer.from < editor.state.frame && editor.state.frame < layer.to;
  });
  if (ids.length === 0) {
    toast.info('Nothing to split: select layers that show before and after the playhead.');
    return;
  }
  const before = new Set(editor.scene.order);
  editor.edit(splitLayers(editor.scene.id, ids, editor.state.frame, makeId));
  editor.select({ layers: editor.scene.order.filter((id) => !before.has(id)) });
};

export const extendSelection = (editor: Editor): void => {
  const ids = freeLayers(editor);
  if (ids.length > 0) editor.edit(extendLayers(editor.scene.id, ids));
};

/** A marker at the playhead. */
export const markPlayhead = (editor: Editor): void => {
  const { scene } = editor;
  const name = uniqueName(
    'Marker',
    scene.markers.map((m) => m.name),
  );
  editor.edit(addMarker(scene.id, { id: makeId(), frame: editor.state.frame, name }));
};
