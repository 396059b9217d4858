import { choiceAt, copyKeys, type KeyChoice, moveKeys } from '@kite/core/edits/keyframes';
import type { PointerEvent } from 'react';
import { followPointer } from '../../ui/drag';
import type { Editor } from '../store/editor';
import type { TimeScale } from './scale';
import { snapFrames, snappedBy } from './snapFrames';

/** Drags the selected keyframes in time: Alt copies, Ctrl keeps from snapping. */
export const dragKeys = (editor: Editor, down: PointerEvent, scale: TimeScale, onClick: () => void): void => {
  const choices = editor.state.selection.keys;
  const { layers } = editor.state.selection;
  const frames = [...new Set(choices.flatMap((c) => c.frames))];
  const first = Math.min(...frames);
  const targets = snapFrames(editor, choices);
  const select = (keys: readonly KeyChoice[]) => editor.select({ layers, keys });
  const done = () => editor.set({ snappedFrame: null });
  followPointer(down, {
    onStart: () => editor.begin(),
    onMove: ({ dx, event }) => {
      const { by: wanted, at } = snappedBy(frames, scale.frames(dx), targets, scale, event.ctrlKey);
      const by = Math.max(wanted, -first);
      editor.edit(event.altKey ? copyKeys(choices, by) : moveKeys(choices, by));
      select(choiceAt(choices, (f) => f + by));
      editor.set({ snappedFrame: at });
    },
    onEnd: (_drag, moved) => {
      done();
      if (moved) editor.end();
      else onClick();
    },
    onCancel: () => {
      done();
      editor.abandon();
      select(choices);
    },
  });
};
