/** What tools, menus and panels do with masks, and with paths that others lie along. */
import { newItem } from '@kite/core/document/make';
import type { DrawingLayer, Id, Item, Layer, Point, Value } from '@kite/core/document/types';
import { drawInside } from '@kite/core/edits/drawn';
import { drawMask, layAlong, layerOfCard, maskBy } from '@kite/core/edits/masks';
import { groupOf, within } from '@kite/core/edits/recipe';
import { path } from '@kite/core/recipe/sources/path';
import { kindOf } from '@kite/core/recipe/table';
import { holdsCards } from '@kite/core/recipe/types';
import { readersOf, readersOfPart } from '@kite/core/scene/follows';
import { toast } from '../../ui/toast';
import { type Editor, makeId } from '../store/editor';
import { askingFirst } from './formulas';
import { textOf } from './layers';

const oneSelected = ({ state, scene }: Editor): Layer | undefined => {
  const [id, ...more] = state.selection.layers;
  return id === undefined || more.length > 0 ? undefined : scene.layers[id];
};

/** The one selected drawing, which may be drawn on; null where there is none. */
export const drawnOn = (editor: Editor): DrawingLayer | null => {
  const layer = oneSelected(editor);
  return layer?.kind === 'drawing' && !layer.locked ? layer : null;
};

/** The same, which `what` is said of; where there is none that is told. */
export const drawingFor = (editor: Editor, what: string): DrawingLayer | null => {
  const layer = oneSelected(editor);
  if (layer?.kind !== 'drawing') toast.info(`Select the one layer that ${what}.`);
  else if (layer.locked) toast.info(`“${layer.name}” is locked.`);
  return drawnOn(editor);
};

/** The group or the mask of the selected drawing that is open, or in which the open card is; null where there is none. */
export const openHolder = (editor: Editor): { readonly layer: DrawingLayer; readonly card: Item } | null => {
  const layer = drawnOn(editor);
  const { card } = editor.state.selection;
  if (!layer || card === null) return null;
  for (let at: Id | null = card; at !== null; at = groupOf(layer.items, at)) {
    const item = layer.items[at];
    if (item?.children && holdsCards(kindOf(item.kind))) return { layer, card: item };
  }
  return null;
};

/** Where a drawn shape of a kind becomes a card: among those of what is open, where that is wanted. */
export const holderNext = (editor: Editor, kind: string): ReturnType<typeof openHolder> => {
  const { drawsAs } = editor.state;
  return drawsAs === 'card' || (drawsAs === null && kind === path.kind) ? openHolder(editor) : null;
};

/** What takes in the shape that is drawn next: a drawing as its mask, or what of it is open as a card; null where it becomes a layer. */
export const takerNext = (
  editor: Editor,
  kind: string,
): { readonly layer: DrawingLayer; readonly card: Item | null } | null => {
  const masked = editor.state.drawsAs === 'mask' ? drawnOn(editor) : null;
  return masked ? { layer: masked, card: null } : holderNext(editor, kind);
};

/** A shape as a card of a group or a mask, at a point of the scene; it is opened. */
export const addInside = (
  editor: Editor,
  layer: Id,
  inside: Id,
  kind: string,
  values: { readonly [key: string]: Value },
  at: Point,
): void => {
  const shape = newItem(makeId(), kind, values);
  const group = makeId();
  const edit = drawInside(editor.program, layer, inside, group, shape, at, editor.state.frame, makeId);
  if (editor.edit(edit)) editor.select({ layers: [layer], card: kind === path.kind ? shape.id : group });
};

/** A shape as a mask of a layer, at a point of the scene; its card is opened. */
export const addMask = (
  editor: Editor,
  layer: Id,
  kind: string,
  values: { readonly [key: string]: Value },
  at: Point,
): void => {
  const shape = newItem(makeId(), kind, values);
  const ids = { mask: makeId(), group: makeId() };
  if (!editor.edit(drawMask(editor.program, layer, ids, shape, at, editor.state.frame, makeId))) return;
  // What is open is what the handles are for.
  editor.select({ layers: [layer], card: kind === 'path' ? shape.id : ids.group });
};

/** One of the selected drawings, and the others, of which it can become a card. */
interface Choice {
  readonly by: Id;
  readonly others: readonly Id[];
}

/** The frontmost of the selected drawings of which something holds; null where there are too few. */
const frontmost = ({ state, scene }: Editor, holds: (layer: DrawingLayer) => boolean): Choice | null => {
  const chosen = scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    return state.selection.layers.includes(id) && layer?.kind === 'drawing' && !layer.locked ? [layer] : [];
  });
  const by = chosen.find(holds)?.id;
  const others = chosen.map(({ id }) => id).filter((id) => id !== by);
  return by === undefined || others.length === 0 ? null : { by, others };
};
/** The one that can mask the others. */
export const maskChoice = (editor: Editor): Choice | null => frontmost(editor, () => true);
/** The one that the others can lie along: words never are what is lain along. */
export const pathChoice = (editor: Editor): Choice | null => frontmost(editor, (layer) => textOf(layer) === null);

/** Makes one of the selected drawings a card of the others, which stay selected; where there are too few, says which are wanted. */
const holdOne = (editor: Editor, choice: Choice | null, hold: typeof maskBy, wanted: string): void => {
  if (!choice) {
    toast.info(`Select ${wanted}.`);
    return;
  }
  const edit = hold(editor.scene.id, choice.by, choice.others, editor.state.frame, makeId);
  if (askingFirst(editor, edit, readersOf(editor.scene, [choice.by]))) editor.select({ layers: [...choice.others] });
};
export const maskSelection = (editor: Editor): void =>
  holdOne(editor, maskChoice(editor), maskBy, 'the shape and the layers behind it that it is to mask');
export const laySelection = (editor: Editor): void =>
  holdOne(editor, pathChoice(editor), layAlong, 'a path and the words or shapes that are to lie along it');

/** What is in a mask, or in what lies along a path, as a layer of its own, in place. */
export const freeCard = (editor: Editor, layer: DrawingLayer, card: Id): void => {
  const { scene } = editor;
  const parts = within(layer.items, card).map(({ id }) => id);
  const readers = [...new Set(parts.flatMap((part) => readersOfPart(scene, layer.id, part)))].filter(
    ({ by }) => by.item === undefined || !parts.includes(by.item),
  );
  askingFirst(editor, layerOfCard(scene.id, layer.id, card, makeId), readers);
  const front = editor.scene.order[editor.scene.order.indexOf(layer.id) - 1];
  if (editor.scene !== scene && front !== undefined) editor.select({ layers: [front] });
};
