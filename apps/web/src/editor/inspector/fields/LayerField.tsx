import type { Id, PropertyRef } from '@kite/core/document/types';
import { together } from '@kite/core/document/patches';
import { relinkMatte } from '@kite/core/edits/mattes';
import { wouldCutItself } from '@kite/core/scene/follows';
import { Scissors } from 'lucide-react';
import { Select } from '../../../ui/Select';
import { useLinkDrag } from '../../linking/useLinkDrag';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';

interface LayerFieldProps {
  label: string;
  value: Id | null;
  refs: readonly PropertyRef[];
}

/** Another layer of the scene: from a list, or by dragging to its row or its picture. */
export const LayerField = ({ label, value, refs }: LayerFieldProps) => {
  const editor = useEditor();
  const scene = useSlice(sceneOf);
  const fits = (id: Id) =>
    scene.layers[id]?.kind === 'drawing' && refs.every((ref) => !wouldCutItself(scene, ref.layer, id));
  const choose = (by: Id) => {
    const edits = refs.flatMap(({ scene: of, layer, item }) =>
      item === undefined ? [] : [relinkMatte({ scene: of, layer, item }, by)],
    );
    editor.edit(together('Cut by a layer', edits));
  };
  const { onPointerDown, line } = useLinkDrag((found) => found && choose(found.layer));
  const options = scene.order.filter((id) => id === value || fits(id));
  const known = value !== null && scene.layers[value] !== undefined;
  return (
    <span className="flex min-w-0 items-center gap-1">
      <Select
        aria-label={label}
        className="flex-1"
        value={value ?? ''}
        options={[
          ...(known ? [] : [{ value: value ?? '', label: value ? 'Gone' : 'Choose …' }]),
          ...options.map((id) => ({ value: id, label: scene.layers[id]?.name ?? id })),
        ]}
        onChange={choose}
      />
      <button
        type="button"
        aria-label={`Drag to a layer for ${label.toLowerCase()}`}
        title="Drag to a layer’s row, or to its picture"
        className="grid size-[26px] shrink-0 cursor-grab place-items-center rounded-md text-tail hover:bg-paper-2"
        onPointerDown={onPointerDown}
      >
        <Scissors size={14} />
      </button>
      {line}
    </span>
  );
};
