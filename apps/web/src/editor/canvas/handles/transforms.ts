/** Gestures on the canvas: moving, scaling and turning what is selected. */
import type { Id, Layer, Point, PropertyRef, Value } from '@kite/core/document/types';
import { inverted, type Matrix, multiply, placed, translation, turn, apply } from '@kite/core/geometry/matrix';
import { nearestMatrix } from '@kite/core/geometry/through';
import { movePivot } from '@kite/core/edits/place';
import { type Box, boxThrough } from '@kite/core/geometry/bounds';
import { boxOfLayers } from '@kite/core/scene/bounds';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import type { Editor } from '../../store/editor';
import type { View } from '../../store/workspace';
import { placementOf } from '@kite/core/properties/placement';
import { editGesture } from './editGesture';
import { Snapping } from '../snapping';
import { toScene } from '../view';

type Writes = (readonly [PropertyRef, Value])[];

/** A layer as a gesture finds it. */
interface Grabbed {
  readonly id: Id;
  readonly place: { position: Point; pivot: Point; scale: Point; rotation: number };
  /** The turn it is drawn with, its path's direction included. */
  readonly turn: number;
  /** From its parent's pixels to the scene's; in depth what comes nearest to that where it is. */
  readonly parent: Matrix;
  readonly ref: (key: string) => PropertyRef;
}

const isFree = (layer: Layer | undefined): layer is Layer => layer !== undefined && !layer.locked;

/** The selected layers; those that move with a selected parent are left to it. */
export const grab = (editor: Editor): Grabbed[] => {
  const { scene } = editor;
  const { frame, selection } = editor.state;
  const program = editor.program;
  const chosen = new Set(selection.layers);
  const follows = (layer: Layer): boolean => {
    for (let at = layer.parent; at !== null; at = scene.layers[at]?.parent ?? null) if (chosen.has(at)) return true;
    return false;
  };
  return selection.layers
    .map((id) => scene.layers[id])
    .filter(isFree)
    .filter((layer) => !follows(layer))
    .map((layer) => ({ layer, placement: placementOf(layer.params) }))
    .map(({ layer, placement }) => ({
      id: layer.id,
      place: placement.at(frame),
      turn: placement.turn(frame),
      parent: nearestMatrix(program.aroundAt(layer.id, frame), placement.at(frame).position),
      ref: (key) => ({ scene: scene.id, layer: layer.id, key }),
    }));
};

/** A direction in the scene as one in a layer's parent. */
const intoParent = (m: Matrix, [dx, dy]: Point): Point => {
  const back = inverted([m[0], m[1], m[2], m[3], 0, 0]);
  return back ? apply(back, [dx, dy]) : [0, 0];
};

const tidy = (n: number): number => Math.round(n * 1000) / 1000;
const tidyPoint = ([x, y]: Point): Point => [tidy(x), tidy(y)];

/** What a drag of some layers is about to do to keyframes of one of their properties, as it is told beside its numbers. */
export const writesOf = (editor: Editor, grabbed: readonly Grabbed[], key: string): string => {
  const writes = writesAt(
    editor.state,
    grabbed.map((g) => g.ref(key)),
  );
  return writes ? ` · ${WRITES[writes].short}` : '';
};

/** Drags everything that is selected, snapping as it goes; Shift keeps to one axis. What lies around the press hears of it, or not. */
export const moveSelection = (
  editor: Editor,
  down: ReactPointerEvent,
  zoom: number,
  pointOf: (event: { clientX: number; clientY: number }) => Point,
  heard: 'around' | 'alone' = 'around',
): void => {
  const grabbed = grab(editor);
  const ids = grabbed.map((g) => g.id);
  const keyed = writesOf(editor, grabbed, 'position');
  let snapping: Snapping | null = null;
  let box: Box | null = null;
  editGesture(editor, down, {
    first: 'picture',
    // Open popovers close by hearing of it.
    bubbles: heard === 'around',
    start: () => {
      snapping = new Snapping(editor, ids, zoom);
      box = boxOfLayers(editor.program, ids, editor.state.frame);
    },
    move: ({ dx, dy, event }) => {
      const straight = event.shiftKey ? (Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy]) : [dx, dy];
      // Whole pixels of the scene: what is placed by hand stays crisp.
      const way: Point = [Math.round(straight[0]! / zoom), Math.round(straight[1]! / zoom)];
      const by = box && snapping ? snapping.box(boxThrough(translation(...way), box), event) : [0, 0];
      const whole: Point = [
        straight[0] === 0 && event.shiftKey ? 0 : way[0] + (by[0] as number),
        straight[1] === 0 && event.shiftKey ? 0 : way[1] + (by[1] as number),
      ];
      const writes: Writes = grabbed.map((g) => {
        const [px, py] = intoParent(g.parent, whole);
        return [g.ref('position'), tidyPoint([g.place.position[0] + px, g.place.position[1] + py])];
      });
      if (writes.length > 0) writeValues(editor, writes, 'Move');
      const [only] = grabbed;
      const at = only && grabbed.length === 1 ? apply(only.parent, only.place.position) : ([0, 0] as const);
      const text = `${grabbed.length === 1 ? '' : '+ '}${tidy(at[0] + whole[0])}, ${tidy(at[1] + whole[1])}`;
      editor.set({ readout: { at: pointOf(event), text: text + keyed } });
    },
  });
};

/** Drags a layer's pivot and leaves the picture where it is. */
export const dragPivot = (
  editor: Editor,
  down: ReactPointerEvent,
  layer: Id,
  view: View,
  pointOf: (event: { clientX: number; clientY: number }) => Point,
): void => {
  const { frame } = editor.state;
  const back = inverted(editor.program.matrixAt(layer, frame));
  if (!back) return;
  // The layer's own corners and middle are what a pivot is mostly wanted on.
  const snapping = new Snapping(editor, [], view.zoom);
  editGesture(editor, down, {
    move: ({ event }) => {
      const at = snapping.point(toScene(view, pointOf(event)), event);
      const pivot = tidyPoint(apply(back, at));
      editor.edit(movePivot(editor.scene.id, layer, pivot, frame));
      editor.set({ readout: { at: pointOf(event), text: `pivot ${pivot[0]}, ${pivot[1]}` } });
    },
  });
};

/** Scales one layer along its own axes so that `anchor`, in its own pixels, stays where it is. */
export const scaleLayer = (editor: Editor, g: Grabbed, factor: Point, anchor: Point): void => {
  const scale = tidyPoint([g.place.scale[0] * factor[0], g.place.scale[1] * factor[1]]);
  const before = apply(placed({ ...g.place, rotation: g.turn }), anchor);
  const after = apply(placed({ ...g.place, rotation: g.turn, scale }), anchor);
  const position = tidyPoint([g.place.position[0] + before[0] - after[0], g.place.position[1] + before[1] - after[1]]);
  const moved = position.some((v, i) => Math.abs(v - (g.place.position[i] as number)) > 0.0005);
  writeValues(editor, [[g.ref('scale'), scale], ...(moved ? [[g.ref('position'), position] as const] : [])], 'Scale');
};

/** Scales and turns several layers as one about a point of the scene. */
export const transformAll = (
  editor: Editor,
  grabbed: readonly Grabbed[],
  about: Point,
  scale: number,
  degrees: number,
  label: string,
): void => {
  const [cos, sin] = turn(degrees);
  const linear: Matrix = [cos * scale, sin * scale, -sin * scale, cos * scale, 0, 0];
  const whole = multiply(multiply(translation(about[0], about[1]), linear), translation(-about[0], -about[1]));
  const writes: Writes = grabbed.flatMap((g): Writes => {
    const back = inverted(g.parent);
    if (!back) return [];
    const position = tidyPoint(apply(back, apply(whole, apply(g.parent, g.place.position))));
    const out: Writes = [];
    if (position.some((v, i) => Math.abs(v - (g.place.position[i] as number)) > 0.0005))
      out.push([g.ref('position'), position]);
    if (scale !== 1) out.push([g.ref('scale'), tidyPoint([g.place.scale[0] * scale, g.place.scale[1] * scale])]);
    if (degrees !== 0) out.push([g.ref('rotation'), tidy(g.place.rotation + degrees)]);
    return out;
  });
  if (writes.length > 0) writeValues(editor, writes, label);
};

export type { Grabbed };
