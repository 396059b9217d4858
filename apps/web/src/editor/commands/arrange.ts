/** Commands that put the selected layers in order: groups, alignment, tags, solo. */
import { namesIn, uniqueName } from '@kite/core/document/make';
import { type Edit, together } from '@kite/core/document/patches';
import type { Id, Point, Tag } from '@kite/core/document/types';
import { joinLayers } from '@kite/core/edits/join';
import { groupsOf, takeApart } from '@kite/core/edits/takeApart';
import { layersOf } from '@kite/core/edits/layers';
import { type AsShown, flipLayers, groupLayers, moveBy, setParent, ungroupLayers } from '@kite/core/edits/place';
import type { Box } from '@kite/core/geometry/bounds';
import { apply, inverted } from '@kite/core/geometry/matrix';
import { aligned, type Alignment, distributed } from '@kite/core/geometry/snap';
import { withMembers } from '@kite/core/scene/groups';
import { boxOfLayers, layerBoxInScene } from '@kite/core/scene/bounds';
import { toast } from '../../ui/toast';
import { grab } from '../canvas/handles/transforms';
import { type Editor, makeId } from '../store/editor';
import { sayUnread } from './layers';

/** Where layers are at the playhead, formulas and all. */
export const asShown =
  (editor: Editor): AsShown =>
  (id) =>
    editor.scene.layers[id] && editor.program.matrixAt(id, editor.state.frame);

/** Hangs layers from another, or from none; the picture stays as it is at the playhead. */
export const hangFrom = (editor: Editor, ids: readonly Id[], parent: Id | null): boolean =>
  editor.edit(setParent(editor.scene.id, ids, parent, editor.state.frame, asShown(editor)));

/** Puts the selected layers under a new controller in their midst. */
export const groupSelection = (editor: Editor): void => {
  const ids = editor.state.selection.layers;
  if (ids.length === 0) return;
  const box = boxOfLayers(editor.program, ids, editor.state.frame);
  const { scene } = editor;
  const at: Point = box
    ? [Math.round((box.left + box.right) / 2), Math.round((box.top + box.bottom) / 2)]
    : [scene.width / 2, scene.height / 2];
  const id = makeId();
  const name = uniqueName('Group', namesIn(scene));
  editor.edit(groupLayers(scene, ids, id, name, at, editor.state.frame, asShown(editor)));
  editor.select({ layers: [id] });
};

/** Frees what hangs from the selected controllers; takes drawings with several groups apart into a layer each. */
export const ungroupSelection = (editor: Editor): void => {
  const { scene } = editor;
  const chosen = layersOf(scene, editor.state.selection.layers);
  const controllers = chosen.filter((l) => l.kind === 'controller').map((l) => l.id);
  const children = scene.order.filter((id) => controllers.includes(scene.layers[id]?.parent ?? ''));
  const drawings = chosen.filter((l) => l.kind === 'drawing').filter((l) => groupsOf(l).length > 0);
  const before = new Set(scene.order);
  const edits: Edit[] = [
    ...(controllers.length > 0 ? [ungroupLayers(scene.id, controllers, editor.state.frame, asShown(editor))] : []),
    ...drawings.map((l) => takeApart(scene.id, l.id, makeId)),
  ];
  if (edits.length === 0) {
    toast.info('There is nothing to ungroup: select a controller, or a drawing with groups in its recipe.');
    return;
  }
  editor.edit(together('Ungroup', edits));
  const fresh = editor.scene.order.filter((id) => !before.has(id));
  editor.select({ layers: [...children, ...fresh] });
};

/** Makes one drawing of the selected ones, each a group of its recipe; the picture stays. */
export const joinSelection = (editor: Editor): void => {
  const { scene } = editor;
  const ids = layersOf(scene, withMembers(scene, editor.state.selection.layers))
    .filter((l) => l.kind === 'drawing' && !l.locked)
    .map((l) => l.id);
  if (ids.length < 2) {
    toast.info('Select the drawings that are to be one.');
    return;
  }
  const box = boxOfLayers(editor.program, ids, editor.state.frame);
  const middle: Point = box ? [(box.left + box.right) / 2, (box.top + box.bottom) / 2] : [0, 0];
  // The pivot is in the pixels of what the joined drawing hangs from.
  const parent = scene.layers[ids[0] as Id]?.parent ?? null;
  const back = parent === null ? null : inverted(editor.program.matrixAt(parent, editor.state.frame));
  const pivot = (back ? apply(back, middle) : middle).map(Math.round) as unknown as Point;
  const before = new Set(scene.order);
  if (!editor.edit(joinLayers(scene.id, ids, pivot, editor.state.frame, makeId, asShown(editor)))) return;
  editor.select({ layers: editor.scene.order.filter((id) => !before.has(id)) });
};

type AlignTo = 'scene' | 'selection';

/** Aligns the selected layers with each other or with the scene. */
export const alignSelection = (editor: Editor, how: Alignment, to: AlignTo): void => {
  const { scene } = editor;
  const placed = placedLayers(editor);
  const whole = { left: 0, top: 0, right: scene.width, bottom: scene.height };
  const ids = placed.map((p) => p.id);
  const frame = to === 'scene' ? whole : (boxOfLayers(editor.program, ids, editor.state.frame) ?? whole);
  const ways = aligned(
    placed.map((p) => p.box),
    frame,
    how,
  );
  moveAll(editor, placed, ways, `Align ${how}`);
};

/** Equal gaps between the selected layers, from the outermost to the outermost or over the scene. */
export const distributeSelection = (editor: Editor, axis: 0 | 1, to: AlignTo): void => {
  const placed = placedLayers(editor);
  const { width, height } = editor.scene;
  const ways = distributed(
    placed.map((p) => p.box),
    axis,
    to === 'scene' ? [0, axis === 0 ? width : height] : null,
  );
  moveAll(editor, placed, ways, 'Distribute');
};

/** Aligns one layer with the scene, several with each other. */
export const alignChosen = (editor: Editor, how: Alignment): void => {
  const { layers } = editor.state.selection;
  if (layers.length === 0) toast.info('Select the layers that are to be aligned.');
  else alignSelection(editor, how, layers.length === 1 ? 'scene' : 'selection');
};

export const distributeChosen = (editor: Editor, axis: 0 | 1): void => {
  if (editor.state.selection.layers.length < 3) toast.info('Select three layers or more.');
  else distributeSelection(editor, axis, 'selection');
};

/** Mirrors the selected layers where they stand, as one. */
export const flipSelection = (editor: Editor, axis: 0 | 1): void => {
  const { frame } = editor.state;
  const ids = grab(editor).map(({ id }) => id);
  const box = boxOfLayers(editor.program, ids, frame);
  if (!box) {
    toast.info('Select the layers that are to be flipped.');
    return;
  }
  const about = axis === 0 ? (box.left + box.right) / 2 : (box.top + box.bottom) / 2;
  editor.edit(flipLayers(editor.scene.id, ids, axis, about, frame));
  sayUnread(
    editor,
    ids.flatMap((layer) => ['position', 'scale', 'rotation'].map((key) => ({ scene: editor.scene.id, layer, key }))),
  );
};

const moveAll = (editor: Editor, placed: readonly { id: Id }[], ways: readonly Point[], label: string): void => {
  if (placed.length === 0) return;
  const moves = new Map(placed.map((p, i) => [p.id, ways[i] as Point]));
  editor.edit(moveBy(editor.scene.id, moves, label, editor.state.frame));
};

/** The selected layers that draw something and are not locked, with their boxes in the scene. */
const placedLayers = (editor: Editor): { id: Id; box: Box }[] =>
  editor.state.selection.layers.flatMap((id) => {
    const { locked = true } = editor.scene.layers[id] ?? {};
    const box = !locked && layerBoxInScene(editor.program, id, editor.state.frame);
    return box ? [{ id, box }] : [];
  });

export const selectTag = (editor: Editor, tag: Tag): void => {
  const { order, layers } = editor.scene;
  editor.select({ layers: order.filter((id) => layers[id]?.tag === tag) });
};

/** Shows layers alone, with those that are so already; or with the others again. */
export const soloLayers = (editor: Editor, ids: readonly Id[], alone: boolean): void => {
  const all = withMembers(editor.scene, ids);
  const others = editor.state.solo.filter((id) => !all.includes(id));
  editor.set({ solo: alone ? [...others, ...all] : others });
};
