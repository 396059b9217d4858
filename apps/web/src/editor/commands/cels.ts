/** Drawing by hand: which card a stroke goes to, and new cels at the playhead. */
import { ASSETS } from '@kite/api/library';
import { newDrawing, newItem } from '@kite/core/document/make';
import { together } from '@kite/core/document/patches';
import type { BrushStroke, DrawingLayer, Id } from '@kite/core/document/types';
import { celAtPlayhead, celFrames, celsCardOf, celsIn, celShown, newCels } from '@kite/core/edits/cels';
import { uprightIn } from '@kite/core/edits/drawn';
import { addStroke } from '@kite/core/edits/strokes';
import { addLayers } from '@kite/core/edits/layers';
import { type CardRef, groupOf } from '@kite/core/edits/recipe';
import { sizeAt } from '@kite/core/geometry/size';
import type { Through } from '@kite/core/geometry/through';
import { cel as celKind } from '@kite/core/recipe/groups/cel';
import { brush as brushKind } from '@kite/core/recipe/sources/brush';
import { picture as pictureKind } from '@kite/core/recipe/sources/picture';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { sayUnchanged } from '../../ui/says';
import { takenIn } from '../importing/takenIn';
import { type Editor, makeId } from '../store/editor';

type Played = Parameters<typeof celShown>[2];

/** Cels of a layer, as they are played. */
export interface CelsShown {
  readonly ref: CardRef;
  readonly layer: DrawingLayer;
  readonly values: Played;
}

/** The cels that are drawn on: those of the one selected layer; null where it has none. */
export const celsNow = (editor: Editor): CelsShown | null => {
  const { selection, frame } = editor.state;
  const layer = selection.layers.length === 1 ? editor.scene.layers[selection.layers[0] as Id] : undefined;
  if (layer?.kind !== 'drawing' || layer.locked) return null;
  const item = celsCardOf(layer);
  const shown = item === null ? null : editor.program.cardAt(layer.id, item, frame);
  if (item === null || !shown) return null;
  return { ref: { scene: editor.scene.id, layer: layer.id, item }, layer, values: shown.values as unknown as Played };
};

/** The card that the next stroke goes to, and the way from its pixels to the scene's; null for a new drawing. */
export const strokesGoTo = (editor: Editor): { readonly ref: CardRef; readonly through: Through } | null => {
  const { selection, frame } = editor.state;
  const layer = selection.layers.length === 1 ? editor.scene.layers[selection.layers[0] as Id] : undefined;
  if (layer?.kind !== 'drawing' || layer.locked) return null;
  const found = (item: Id) => {
    const shown = editor.program.cardAt(layer.id, item, frame);
    return shown && { ref: { scene: editor.scene.id, layer: layer.id, item }, through: shown.through };
  };
  const open = selection.card === null ? undefined : layer.items[selection.card];
  const around = open && groupOf(layer.items, open.id);
  const inCels = around && layer.items[around]?.kind === celKind.kind;
  if (open?.kind === brushKind.kind && !inCels) return found(open.id);
  const cels = celsNow(editor);
  if (!cels) return null;
  const list = celsIn(layer, cels.ref.item);
  // Before the first of them shows, and after the last has gone, it is still they that are meant.
  const shown =
    celShown(layer, cels.ref.item, cels.values, frame) ?? (frame < cels.values.start ? list[0] : list.at(-1));
  return shown === undefined ? null : found(shown);
};

/** Draws a stroke, given in the pixels of where it goes; in a drawing of its own where nothing takes it, in those of the scene. */
export const drawStroke = (editor: Editor, stroke: BrushStroke): void => {
  const { stamp } = editor.state.brush;
  const to = strokesGoTo(editor);
  if (to) {
    editor.edit(addStroke(to.ref, stroke, makeId, stamp));
    return;
  }
  const { scene } = editor;
  const middle = [Math.round(scene.width / 2), Math.round(scene.height / 2)] as const;
  const cards = newCels(makeId, 0);
  const count = scene.order.filter((id) => scene.layers[id]?.name.startsWith('Drawn')).length;
  const layer = newDrawing(scene, makeId(), count === 0 ? 'Drawn' : `Drawn ${count + 1}`, cards, { position: middle });
  const points = stroke.points.map((x, i) => (i % 3 === 0 ? x - middle[0] : i % 3 === 1 ? x - middle[1] : x));
  const params = {
    strokes: { value: [{ ...stroke, points }] },
    ...(stroke.tip === 'own' && { stamp: { value: stamp } }),
  };
  const strokes = cards.find(({ kind }) => kind === brushKind.kind);
  const own = {
    ...layer,
    items: {
      ...layer.items,
      ...(strokes && { [strokes.id]: { ...strokes, params } }),
    },
  };
  editor.edit(addLayers(scene.id, [own], editor.state.selection.layers[0]));
  editor.select({ layers: [layer.id] });
};

/** A new cel at the playhead, which goes there: empty, or as the one before it is. */
export const nextCel = (editor: Editor, begins: 'empty' | 'copy'): void => {
  const cels = celsNow(editor);
  if (!cels) return;
  const { ref, layer, values } = cels;
  const { edit, frame } = celAtPlayhead(ref, layer, { frame: editor.state.frame, start: values.start }, begins, makeId);
  editor.edit(edit);
  editor.seek(frame);
};

/** The longest side of a picture that is made of a scene, in pixels: what is larger is enlarged again where it stands. */
const LONGEST = 4_096;

/** A new cel at the playhead that begins as a picture of what lies behind its layer there, to be painted over. */
export const celOfShown = async (editor: Editor): Promise<void> => {
  const cels = celsNow(editor);
  const { scene } = editor;
  if (!cels) {
    toast.info('Select one layer with cels: the brush draws one.');
    return;
  }
  const layers = scene.order.slice(scene.order.indexOf(cels.layer.id) + 1);
  const frame = Math.floor(editor.state.frame);
  const share = Math.min(1, LONGEST / Math.max(scene.width, scene.height));
  const { width, height } = sizeAt(scene, share);
  try {
    const picture = await editor.preview.picture(scene.id, { what: 'layers', layers, frame }, width, height);
    if (!picture) throw new Error('The frame could not be drawn.');
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('bitmaprenderer')?.transferFromImageBitmap(picture);
    const file = await canvas.convertToBlob({ type: 'image/png' });
    const sent = await ask(ASSETS.add, { name: `${scene.name}, frame ${frame}` }, file);
    const { assets, edits } = takenIn(editor.state.doc.assets, [sent]);
    const asset = assets[0] ?? sent;
    const now = celsNow(editor);
    const shown = now && editor.program.cardAt(now.layer.id, now.ref.item, frame);
    if (!shown || now.layer.id !== cels.layer.id) throw new Error('Another layer was selected meanwhile.');
    const card = newItem(makeId(), pictureKind.kind, { asset: asset.id, ...(share < 1 && { size: 1 / share }) });
    const ground = uprightIn(shown.matrix, [scene.width / 2, scene.height / 2], makeId(), card, makeId);
    const at = { frame: editor.state.frame, start: now.values.start };
    const made = celAtPlayhead(now.ref, now.layer, at, ground, makeId);
    editor.edit(together(made.edit.label, [...edits, made.edit]));
    editor.seek(made.frame);
  } catch (error) {
    sayUnchanged(error);
  }
};

/** To the cel before, or the one after. */
export const stepCel = (editor: Editor, way: -1 | 1): void => {
  const cels = celsNow(editor);
  if (!cels) return;
  const { frame } = editor.state;
  const frames = celFrames(cels.layer, cels.ref.item, cels.values.start).slice(0, -1);
  const to = way > 0 ? frames.find((from) => from > frame) : frames.findLast((from) => from < frame);
  if (to !== undefined) editor.seek(to);
};
