/** Dragging the bars of layers: sliding, trimming, stretching. */
import type { Layer } from '@kite/core/document/types';
import { keysOfLayers } from '@kite/core/edits/keyframes';
import { setLayers } from '@kite/core/edits/layers';
import { slideLayers, stretchLayers } from '@kite/core/edits/timing';
import type { PointerEvent } from 'react';
import { type Drag, followPointer } from '../../ui/drag';
import type { Editor } from '../store/editor';
import type { TimeScale } from './scale';
import { snapFrames, snappedBy } from './snapFrames';

const gesture = (editor: Editor, down: PointerEvent, onMove: (drag: Drag) => void, pressed?: () => void): void => {
  const done = () => editor.set({ snappedFrame: null });
  followPointer(down, {
    onStart: () => editor.begin(),
    onMove,
    onEnd: (_drag, moved) => {
      done();
      if (moved) editor.end();
      else pressed?.();
    },
    onCancel: () => {
      done();
      editor.abandon();
    },
  });
};

/** What the dragged layers may snap to: everything but their own ends. */
const targetsFor = (editor: Editor, layers: readonly Layer[]): number[] => {
  const own = new Set(layers.flatMap((l) => [l.from, l.to]));
  const dragged = keysOfLayers(
    editor.scene,
    layers.map((l) => l.id),
  );
  const { frame } = editor.state;
  return snapFrames(editor, dragged).filter((f) => f === frame || !own.has(f));
};

/** Slides the selected layers in time, keyframes and all; Ctrl keeps from snapping. A press that slides nothing may mean something else. */
export const slideBars = (editor: Editor, down: PointerEvent, scale: TimeScale, pressed?: () => void): void => {
  const layers = editor.state.selection.layers.flatMap((id) => editor.scene.layers[id] ?? []).filter((l) => !l.locked);
  const ids = layers.map((l) => l.id);
  const ends = layers.flatMap((l) => [l.from, l.to]);
  const targets = targetsFor(editor, layers);
  const slide = ({ dx, event }: Drag) => {
    const { by, at } = snappedBy(ends, scale.frames(dx), targets, scale, event.ctrlKey);
    editor.edit(slideLayers(editor.scene.id, ids, by));
    editor.set({ snappedFrame: at });
  };
  gesture(editor, down, slide, pressed);
};

/** Trims a layer at an end; with Alt stretches it, its keyframes in proportion. */
export const dragBarEnd = (
  editor: Editor,
  down: PointerEvent,
  scale: TimeScale,
  { id, from, to }: Layer,
  end: 'from' | 'to',
): void => {
  const { scene } = editor;
  const layer = scene.layers[id];
  const targets = layer ? targetsFor(editor, [layer]) : [];
  gesture(editor, down, ({ dx, event }) => {
    const { by, at } = snappedBy([end === 'from' ? from : to], scale.frames(dx), targets, scale, event.ctrlKey);
    const first = end === 'from' ? Math.min(from + by, to - 1) : from;
    const last = end === 'to' ? Math.max(to + by, from + 1) : to;
    editor.edit(
      event.altKey
        ? stretchLayers(scene.id, [id], (last - first) / (to - from), first)
        : setLayers(scene.id, [id], end === 'from' ? { from: first } : { to: last }),
    );
    editor.set({ snappedFrame: at });
  });
};
