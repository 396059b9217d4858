import { CornerLeftUp } from 'lucide-react';
import { Button } from '../../../ui/Button';
import { useEditor, useSlice } from '../../store/context';
import { surroundingsOf } from '../../store/inPlace';
import { leaveNest } from '../../commands/nesting';

/** Where the open scene is seen, and the way back. */
export const InPlaceBar = () => {
  const editor = useEditor();
  const around = useSlice((s) => (s.within ? (s.doc.scenes[s.within.scene]?.name ?? null) : null));
  const own = useSlice((s) => s.doc.scenes[s.sceneId]?.name ?? '');
  const set = useSlice(() => Object.keys(surroundingsOf(editor)?.settings ?? {}).length);
  if (around === null) return null;
  return (
    <div
      role="group"
      aria-label="Seen in its place"
      className="absolute top-2 left-1/2 z-20 flex max-w-[calc(100%-1rem)] -translate-x-1/2 items-center gap-2 rounded-md border border-line bg-paper py-1 pr-1 pl-3 shadow-sm"
    >
      <span className="truncate">
        “{own}” in its place in “{around}”{set > 0 && `, with ${set === 1 ? 'the knob' : `the ${set} knobs`} set there`}
      </span>
      <Button icon={<CornerLeftUp size={14} />} className="!h-6" onClick={() => leaveNest(editor)}>
        Back
      </Button>
    </div>
  );
};
