/** What menus, buttons and shortcuts do to the selection. */
import { SELECTING } from '../store/workspace';
import { isComputed } from '../formula/useComputed';
import { FIRST_COLORS, inkOn, nextColor } from '@kite/core/document/colors';
import { newController, newDrawing, newItem, stillAll } from '@kite/core/document/make';
import { MOST_LETTERS } from '@kite/core/document/params';
import { asName, cutText, sound } from '@kite/core/document/text';
import { type Edit, together } from '@kite/core/document/patches';
import { type Id, type Item, type Layer, type Point, type PropertyRef, type Value } from '@kite/core/document/types';
import { paramAt, propertiesOf, propertyAt } from '@kite/core/properties/find';
import { formulaIn } from '@kite/core/edits/formulas';
import { addLayers, moveLayers, setLayers } from '@kite/core/edits/layers';
import { splitText } from '@kite/core/edits/text';
import type { TextUnit } from '@kite/core/motion/sampler';
import { removeItem } from '@kite/core/edits/recipe';
import { removeKeys } from '@kite/core/edits/keyframes';
import { setValue } from '@kite/core/edits/properties';
import { below } from '@kite/core/recipe/sources/below';
import { chart } from '@kite/core/recipe/sources/chart';
import { labels } from '@kite/core/recipe/steps/labels';
import type { Box } from '@kite/core/geometry/bounds';
import type { Size } from '@kite/core/geometry/size';
import { factsOf } from '@kite/core/formula/facts';
import { kindOf } from '@kite/core/recipe/table';
import { holdsCards } from '@kite/core/recipe/types';
import { keyFrames } from '@kite/core/motion/keys';
import { layerBox } from '@kite/core/scene/bounds';
import { withMembers } from '@kite/core/scene/groups';
import { samplerOf } from '@kite/core/motion/sampler';
import { removeLayersAsking, removePartAsking } from './formulas';
import { textsFramed } from './framing';
import { gradientsBegun } from './inks';
import { addInside, addMask, drawingFor, takerNext } from './masks';
import { toast } from '../../ui/toast';
import { type Editor, makeId } from '../store/editor';
import type { EditorState } from '../store/state';

/** What a change at the playhead does to properties that are animated: null where none of them is. */
export type Writes = 'key' | 'new-key' | 'curve' | null;
export const WRITES: Record<Exclude<Writes, null>, { readonly short: string; readonly means: string }> = {
  key: { short: 'this key', means: 'A change here is one of this keyframe' },
  'new-key': { short: 'a new key', means: 'A change here sets a keyframe' },
  curve: { short: 'whole curve', means: 'A change here moves the whole curve, with all its keyframes' },
};

export const writesAt = (
  { doc, frame, autoKey }: Pick<EditorState, 'doc' | 'frame' | 'autoKey'>,
  refs: readonly PropertyRef[],
): Writes => {
  const frames = refs.map((ref) => keyFrames(propertyAt(doc, ref))).filter((keys) => keys.length > 0);
  if (frames.length === 0) return null;
  if (frames.every((keys) => keys.includes(frame))) return 'key';
  return autoKey ? 'new-key' : 'curve';
};

/** Sets a property of several things; says so where that moves a whole curve. */
export const writeValues = (
  editor: Editor,
  writes: readonly (readonly [ref: PropertyRef, value: Value])[],
  label?: string,
): void => {
  const { doc } = editor.state;
  const how = editor.writing;
  const edits: Edit[] = [
    ...writes.map(([ref, value]) => setValue(ref, value, how)),
    ...gradientsBegun(editor, writes),
    ...textsFramed(editor, writes),
  ];
  const only = edits.length === 1 ? edits[0] : undefined;
  editor.edit(only && label === undefined ? only : together(label ?? 'Change values', edits));
  if (how.write === 'curve') {
    const moved = writes.find(([ref]) => {
      const keys = keyFrames(propertyAt(doc, ref));
      return keys.length > 1 && !keys.includes(how.frame);
    });
    if (moved) {
      const name = paramAt(doc, moved[0])?.label ?? 'property';
      toast.info(
        `${name}: the whole curve moved, all keyframes with it. Turn auto-key on (A) to set a keyframe instead.`,
        {
          id: 'curve-moved',
        },
      );
    }
  }
  sayUnread(
    editor,
    writes.map(([ref]) => ref),
  );
};

/** Says so where a formula hides what was written: one that is on and does not read the value beneath it. */
export const sayUnread = (editor: Editor, written: readonly PropertyRef[]): void => {
  const { doc } = editor.state;
  const unread = written.find((ref) => {
    const formula = formulaIn(doc.scenes[ref.scene]?.layers[ref.layer], ref);
    return formula?.on && !factsOf(formula).readsValue;
  });
  if (!unread) return;
  const name = paramAt(doc, unread)?.label ?? 'What was changed';
  toast.info(
    `${name} is computed by a formula that does not read “value”: the change is kept, and shows when it is off.`,
    { id: 'unread' },
  );
};

export const valueAt = (editor: Editor, ref: PropertyRef, frame = editor.state.frame): Value => {
  const param = paramAt(editor.state.doc, ref);
  if (!param) throw new RangeError(`no property ${ref.key}`);
  return samplerOf(param, propertyAt(editor.state.doc, ref)).at(frame);
};

/** A new drawing with a shape and the paint that suits it, selected; or a mask or a card of the selected one, where that is wanted. */
export const addShape = (
  editor: Editor,
  kind: string,
  name: string,
  values: { [key: string]: Value },
  at?: Point,
  into = takerNext(editor, kind),
): Id => {
  const { scene } = editor;
  if (into) {
    const { layer, card } = into;
    const place: Point = at ?? [scene.width / 2, scene.height / 2];
    if (card) addInside(editor, layer.id, card.id, kind, values, place);
    else addMask(editor, layer.id, kind, values, place);
    return layer.id;
  }
  const count = scene.order.length;
  const color = nextColor(editor.state.doc.swatches, count);
  const path = values.path as { closed: boolean } | undefined;
  const open = kind === 'line' || (kind === 'path' && path?.closed === false);
  const paint = open ? newItem(makeId(), 'stroke', { color, width: 12 }) : newItem(makeId(), 'fill', { color });
  const layer = newDrawing(scene, makeId(), name, [newItem(makeId(), kind, values), paint], {
    tag: (['teal', 'amber', 'coral', 'blue'] as const)[count % 4] ?? 'slate',
    ...(at && { position: at }),
  });
  editor.edit(addLayers(scene.id, [layer], editor.state.selection.layers[0]));
  editor.select({ layers: [layer.id] });
  return layer.id;
};

/** Text of a size that is read well in a scene. */
const readSize = ({ width, height }: Size): number => Math.max(12, Math.round(Math.min(height / 9, width / 6)));

/** A layer of one text in front of what is selected, which is selected then. */
const addTextLayer = (
  editor: Editor,
  at: Point,
  name: string,
  values: { readonly [key: string]: Value },
): { readonly layer: Id; readonly item: Id } => {
  const { scene } = editor;
  const source = newItem(makeId(), 'text', { size: readSize(scene), ...values });
  const color = inkOn(scene.background);
  const layer = newDrawing(scene, makeId(), name, [source, newItem(makeId(), 'fill', { color })], {
    tag: 'amber',
    position: at,
  });
  editor.edit(addLayers(scene.id, [layer], editor.state.selection.layers[0]));
  editor.select({ layers: [layer.id] });
  return { layer: layer.id, item: source.id };
};

/** A new text, ready to be typed over; a dragged box wraps its lines. */
export const addText = (editor: Editor, at: Point, box?: Size): void => {
  const boxed = box && { frame: 'box', width: Math.round(box.width), height: Math.round(box.height), align: 'left' };
  const made = addTextLayer(editor, at, 'Text', { text: 'Text', ...boxed });
  editor.set({ mode: { kind: 'writing', ...made } });
};

/** Words as a text in the middle of the scene; lines that would be too long are wrapped. */
export const addWords = (editor: Editor, words: string): void => {
  const { scene } = editor;
  const text = cutText(sound(words.replace(/\r\n?/g, '\n').trim()), MOST_LETTERS);
  const longest = Math.max(...text.split('\n').map((line) => line.length));
  const [width, height] = [Math.round(scene.width * 0.8), Math.round(scene.height * 0.8)];
  // A letter is some half of its size wide.
  const wraps = longest * readSize(scene) * 0.55 > width;
  const boxed = wraps && { frame: 'box', width, height, stand: 'middle' };
  addTextLayer(editor, [scene.width / 2, scene.height / 2], asName(text.replace(/\s+/g, ' '), 'Text', 60), {
    text,
    ...boxed,
  });
};

/** A text in the middle of what a layer draws, which hangs from it: on a face it lies in the face's plane, and turns with it. */
export const addTextOn = (editor: Editor): void => {
  const { scene, program } = editor;
  const { frame } = editor.state;
  const layer = drawingFor(editor, 'a text is to be put on');
  if (!layer) return;
  const { id } = layer;
  const box = layerBox(program, id, frame);
  if (!box) {
    toast.info(`“${layer.name}” shows nothing here that a text could be put on.`);
    return;
  }
  const height = box.bottom - box.top;
  const source = newItem(makeId(), 'text', {
    text: 'Text',
    size: Math.max(8, Math.round(height * 0.6)),
    align: 'center',
  });
  const fill = Object.values(layer.items).find(({ kind, on }) => kind === 'fill' && on);
  const ground = fill && (program.cardAt(id, fill.id, frame)?.values.color as string | undefined);
  const text = newDrawing(
    scene,
    makeId(),
    'Text',
    [source, newItem(makeId(), 'fill', { color: inkOn(ground ?? scene.background) })],
    // Capitals are some seven tenths of the size high, from the base line up.
    { position: [(box.left + box.right) / 2, (box.top + box.bottom) / 2 + height * 0.21], tag: layer.tag },
  );
  editor.edit({ ...addLayers(scene.id, [{ ...text, parent: id }], id), label: 'Put a text on a layer' });
  editor.select({ layers: [text.id] });
  editor.set({ mode: { kind: 'writing', layer: text.id, item: source.id } });
};

/** The first text of a layer, to be typed into; null where it has none. */
export const textOf = (layer: Layer | undefined): Id | null =>
  layer?.kind === 'drawing' ? (Object.values(layer.items).find((i) => i.kind === 'text' && i.on)?.id ?? null) : null;

export const writeText = (editor: Editor, layer: Id): boolean => {
  const item = textOf(editor.scene.layers[layer]);
  if (item === null) return false;
  editor.select({ layers: [layer] });
  if (isComputed(editor.state, { scene: editor.scene.id, layer, item, key: 'text' })) {
    toast.info('A formula writes these words. Change it, or switch it off, to type here.');
    editor.set({ mode: SELECTING });
    return true;
  }
  editor.set({ mode: { kind: 'writing', layer, item } });
  return true;
};

/** Takes the words of the selected layer apart into layers. */
export const splitTextLayer = (editor: Editor, by: TextUnit): void => {
  const drawing = drawingFor(editor, 'has the words');
  if (!drawing) return;
  const layer = drawing.id;
  const item = textOf(drawing);
  if (item === null) {
    toast.info(`“${drawing.name}” has no words.`);
    return;
  }
  const before = new Set(editor.scene.order);
  editor.set({ mode: SELECTING });
  const ref = { scene: editor.scene.id, layer, item };
  editor.edit(splitText(ref, by, editor.state.frame, editor.ownProgram, makeId));
  editor.select({ layers: editor.scene.order.filter((id) => !before.has(id)) });
};

export const addController = (editor: Editor): void => {
  const { scene } = editor;
  const layer = newController(scene, makeId(), 'Controller', { tag: 'violet' });
  editor.edit(addLayers(scene.id, [layer], editor.state.selection.layers[0]));
  editor.select({ layers: [layer.id] });
};

/** A chart with its numbers in the middle of the scene, in colours of the project. */
export const addChart = (editor: Editor): void => {
  const { scene } = editor;
  const { swatches } = editor.state.doc;
  const [width, height] = [Math.round(scene.width * 0.6), Math.round(scene.height * 0.5)];
  const stops = [0, 1].map((at) => ({ at, color: nextColor(swatches, scene.order.length + at) }));
  const cards = [
    newItem(makeId(), chart.kind, { width, height }),
    newItem(makeId(), 'fill', { style: 'each', gradient: { stops } }),
    newItem(makeId(), labels.kind, { size: Math.round(readSize(scene) / 2) }),
    newItem(makeId(), 'fill', { color: inkOn(scene.background) }),
  ];
  const layer = newDrawing(scene, makeId(), 'Chart', cards, {
    tag: 'teal',
    position: [scene.width / 2, scene.height / 2],
  });
  editor.edit(addLayers(scene.id, [layer], editor.state.selection.layers[0]));
  editor.select({ layers: [layer.id], card: (cards[0] as Item).id });
};

/** A controller that the scene is looked at through: where it stands is what is looked at, and turning it goes around that. */
export const addCamera = (editor: Editor): void => {
  const { scene } = editor;
  const place = stillAll({
    position: [scene.width / 2, scene.height / 2],
    depth: true,
    camera: true,
    angle: scene.eye.angle,
  });
  const layer = { ...newController(scene, makeId(), 'Camera', { tag: 'violet' }), params: place };
  editor.edit(addLayers(scene.id, [layer]));
  editor.select({ layers: [layer.id] });
};

/** A layer in front that shows all that is behind it, for effects on the whole picture. */
export const addCover = (editor: Editor): void => {
  const { scene } = editor;
  const card = newItem(makeId(), below.kind);
  const layer = newDrawing(scene, makeId(), 'Effects', [card], { tag: 'violet' });
  editor.edit(addLayers(scene.id, [layer]));
  editor.select({ layers: [layer.id] });
};

/** Deletes what is selected most closely: keyframes, else a card, else layers. Locked layers stay. */
export const deleteSelection = (editor: Editor): void => {
  const { selection } = editor.state;
  const { scene } = editor;
  if (selection.keys.length > 0) {
    editor.edit(removeKeys(selection.keys));
    return;
  }
  const [layer] = selection.layers;
  if (layer !== undefined && selection.card !== null) {
    removePartAsking(editor, layer, selection.card, removeItem({ scene: scene.id, layer, item: selection.card }));
    return;
  }
  const free = selection.layers.filter((id) => !scene.layers[id]?.locked);
  if (free.length < selection.layers.length) toast.info('Locked layers were kept.');
  if (free.length > 0) removeLayersAsking(editor, free);
};

/** Moves the selected layers by pixels of the scene. */
export const nudge = (editor: Editor, dx: number, dy: number): void => {
  const { scene } = editor;
  const writes = editor.state.selection.layers
    .filter((id) => !scene.layers[id]?.locked)
    .map((layer) => {
      const ref = { scene: scene.id, layer, key: 'position' };
      const [x, y] = valueAt(editor, ref) as Point;
      return [ref, [x + dx, y + dy]] as const;
    });
  if (writes.length > 0) writeValues(editor, writes, 'Nudge');
};

/** One place to the front (-1) or back (+1). */
export const restack = (editor: Editor, by: -1 | 1): void => {
  const { scene } = editor;
  const layers = withMembers(scene, editor.state.selection.layers);
  if (layers.length === 0) return;
  const first = Math.min(...layers.map((id) => scene.order.indexOf(id)));
  const rest = scene.order.length - layers.length;
  editor.edit(moveLayers(scene.id, layers, Math.min(Math.max(first + by, 0), rest)));
};

/** Puts the selected layers before or behind all others. */
export const restackFully = (editor: Editor, where: 'front' | 'back'): void => {
  const { scene } = editor;
  const layers = withMembers(scene, editor.state.selection.layers);
  if (layers.length > 0) editor.edit(moveLayers(scene.id, layers, where === 'front' ? 0 : scene.order.length));
};

/** Hides the selected layers, or shows them again where all are hidden; or locks them, or lets them go. */
const turnSelection = (editor: Editor, what: 'hidden' | 'locked'): void => {
  const { scene } = editor;
  const { layers } = editor.state.selection;
  if (layers.length === 0) toast.info('Select the layers first.');
  else editor.edit(setLayers(scene.id, layers, { [what]: !layers.every((id) => scene.layers[id]?.[what]) }));
};
export const hideSelection = (editor: Editor): void => turnSelection(editor, 'hidden');
export const lockSelection = (editor: Editor): void => turnSelection(editor, 'locked');

/** Locks all layers but the selected ones. */
export const lockOthers = (editor: Editor): void => {
  const { scene } = editor;
  const chosen = new Set(editor.state.selection.layers);
  const others = scene.order.filter((id) => !chosen.has(id) && !scene.layers[id]?.locked);
  if (others.length > 0) editor.edit(setLayers(scene.id, others, { locked: true }));
  else toast.info('All other layers are locked already.');
};

/** The nearest keyframe before or after the playhead, on the selected layers or on all. */
export const jumpToKey = (editor: Editor, way: -1 | 1): void => {
  const { scene } = editor;
  const { selection, frame, doc } = editor.state;
  const ids = selection.layers.length > 0 ? selection.layers : scene.order;
  const frames = ids.flatMap((id) => {
    const layer = scene.layers[id];
    if (!layer) return [];
    return propertiesOf(scene.id, layer).flatMap((ref) => keyFrames(propertyAt(doc, ref)));
  });
  const ahead = frames.filter((f) => (way > 0 ? f > frame : f < frame));
  if (ahead.length > 0) editor.seek(way > 0 ? Math.min(...ahead) : Math.max(...ahead));
};

const SHADES: Value = {
  stops: [
    { at: 0, color: FIRST_COLORS[0] },
    { at: 1, color: '#FFFFFF' },
  ],
};
/** What new cards begin with where that is not what they are without a value: in the colours of new things. */
const FIRST_VALUES: Readonly<Record<string, { readonly [key: string]: Value }>> = {
  clouds: { colors: SHADES },
  pattern: { colors: SHADES },
};

/** A card for a recipe, with the values that suit a new one below what has a box; and what stands in it. */
export const newCard = (name: string, boxAbove: () => Box | null = () => null): readonly [Item, ...Item[]] => {
  const kind = kindOf(name);
  const fitting = kind.role === 'cover' ? kind.fitting : undefined;
  const holding = kind.role === 'step' ? kind.holding : undefined;
  const box = fitting || holding ? boxAbove() : null;
  const fitted = box && (fitting?.(box) as { [key: string]: Value } | undefined);
  const values = { ...FIRST_VALUES[name], ...fitted };
  const held = box && holding?.(box);
  const inside = held ? [newItem(makeId(), held.kind, held.values)] : [];
  const children = holdsCards(kind) && { children: inside.map(({ id }) => id) };
  return [{ ...newItem(makeId(), name, values), ...children }, ...inside];
};
