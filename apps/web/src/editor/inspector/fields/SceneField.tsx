import type { Id } from '@kite/core/document/types';
import { wouldRecurse } from '@kite/core/scene/whole';
import { SquareArrowOutUpRight } from 'lucide-react';
import { Select } from '../../../ui/Select';
import { useEditor, useSlice } from '../../store/context';

interface SceneFieldProps {
  label: string;
  value: Id | null;
  onChange: (scene: Id) => void;
}

/** One of the project's scenes that can be played here, and the way into it. */
export const SceneField = ({ label, value, onChange }: SceneFieldProps) => {
  const editor = useEditor();
  const { doc, sceneId } = useSlice((s) => ({ doc: s.doc, sceneId: s.sceneId }));
  const fits = doc.order.filter((id) => id === value || !wouldRecurse(doc.scenes, id, sceneId));
  const inner = value === null ? undefined : doc.scenes[value];
  return (
    <span className="flex min-w-0 items-center gap-1">
      <Select
        aria-label={label}
        className="flex-1"
        value={value ?? ''}
        options={[
          ...(inner ? [] : [{ value: value ?? '', label: 'Choose …' }]),
          ...fits.map((id) => ({ value: id, label: doc.scenes[id]?.name ?? id })),
        ]}
        onChange={onChange}
      />
      <button
        type="button"
        aria-label="Open this scene"
        title={inner ? `Open “${inner.name}”: ${inner.width} × ${inner.height}, ${inner.length} frames` : undefined}
        disabled={!inner}
        className="grid size-[26px] shrink-0 place-items-center rounded-md text-ink-2 hover:bg-paper-2 hover:text-ink disabled:opacity-40"
        onClick={() => inner && editor.showScene(inner.id)}
      >
        <SquareArrowOutUpRight size={14} />
      </button>
    </span>
  );
};
