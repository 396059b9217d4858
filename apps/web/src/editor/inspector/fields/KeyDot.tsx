import type { PropertyRef } from '@kite/core/document/types';
import { together } from '@kite/core/document/patches';
import { curvesAt, propertyAt } from '@kite/core/properties/find';
import { addKey, type KeyChoice, removeKeys } from '@kite/core/edits/keyframes';
import { isAnimated, keyFrames } from '@kite/core/motion/keys';
import { Tooltip } from 'radix-ui';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';

/** The keyframes of some properties, or of their parts, at a frame. */
const keysHere = (editor: Editor, refs: readonly PropertyRef[], frame: number): KeyChoice[] =>
  refs
    .flatMap((ref) => curvesAt(editor.scene.layers[ref.layer], ref))
    .filter((ref) => keyFrames(propertyAt(editor.state.doc, ref)).includes(frame))
    .map((ref) => ({ ref, frames: [frame] }));

/** Whether a property is animated, and has a keyframe here: faint ring, ring, full dot. A press sets or takes the keyframe. */
export const KeyDot = ({ refs, label }: { refs: readonly PropertyRef[]; label: string }) => {
  const editor = useEditor();
  const state = useSlice((s) => {
    const properties = refs.map((ref) => propertyAt(s.doc, ref));
    if (!properties.some(isAnimated)) return 'still';
    const here = properties.every((p) => keyFrames(p).includes(s.frame));
    return here ? 'here' : 'animated';
  });
  const press = () => {
    const { frame } = editor.state;
    const edits =
      state === 'here' ? [removeKeys(keysHere(editor, refs, frame))] : refs.map((ref) => addKey(ref, frame));
    editor.edit(together(edits[0]?.label ?? 'Keyframe', edits));
  };
  const name =
    state === 'here'
      ? 'Remove the keyframe here'
      : state === 'animated'
        ? 'Add a keyframe here'
        : 'Animate: add a keyframe here';
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          aria-label={`${label}: ${name}`}
          data-state={state}
          onClick={press}
          onPointerDown={(event) => event.stopPropagation()}
          className="grid size-4 shrink-0 place-items-center rounded-full"
        >
          <span
            className={`rounded-full border-[1.5px] ${state === 'here' ? 'size-2.5 border-kite bg-kite' : state === 'animated' ? 'size-2.5 border-kite' : 'size-2 border-ink-2 opacity-50'}`}
          />
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content side="top" sideOffset={4} className="z-50 rounded-md bg-ink px-2 py-1 text-sm text-paper">
          {name}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
};
