import { movedTo } from '@kite/core/document/lists';
import type { Id, LayerSet } from '@kite/core/document/types';
import { removeSet, renameSet, setMembers } from '@kite/core/edits/sets';
import { ArrowDown, ArrowUp, ArrowUpToLine, ListOrdered, Trash2, X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/Button';
import { RenameField } from '../../../ui/RenameField';
import { setOfSelection } from '../../commands/formulas';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { WordField } from '../fields/WordField';
import { Card } from './Card';

const Member = ({ set, index }: { set: LayerSet; index: number }) => {
  const editor = useEditor();
  const id = set.members[index] as Id;
  const { name, selected } = useSlice((s) => ({
    name: sceneOf(s).layers[id]?.name ?? '',
    selected: s.selection.layers.includes(id),
  }));
  const put = (to: number) => editor.edit(setMembers(editor.scene.id, set.id, movedTo(set.members, id, to)));
  return (
    <li className={`group flex h-6 items-center gap-1.5 rounded-sm px-1 ${selected ? 'bg-sky-2' : ''}`}>
      <span className="tabular w-5 shrink-0 text-right text-sm text-tail">{index}</span>
      <button
        type="button"
        className="min-w-0 flex-1 truncate text-left"
        onClick={() => editor.select({ layers: [id] })}
      >
        {name}
      </button>
      {index === 0 && <span className="text-sm text-ink-2">lead</span>}
      <span className="flex opacity-0 group-focus-within:opacity-100 group-hover:opacity-100">
        <IconButton label={`${name} leads`} size="small" disabled={index === 0} onClick={() => put(0)}>
          <ArrowUpToLine size={12} />
        </IconButton>
        <IconButton label={`${name} one earlier`} size="small" disabled={index === 0} onClick={() => put(index - 1)}>
          <ArrowUp size={12} />
        </IconButton>
        <IconButton
          label={`${name} one later`}
          size="small"
          disabled={index === set.members.length - 1}
          onClick={() => put(index + 1)}
        >
          <ArrowDown size={12} />
        </IconButton>
        <IconButton
          label={`Take ${name} out of the set`}
          size="small"
          onClick={() =>
            editor.edit(
              setMembers(
                editor.scene.id,
                set.id,
                set.members.filter((m) => m !== id),
              ),
            )
          }
        >
          <X size={12} />
        </IconButton>
      </span>
    </li>
  );
};

/** The set of the selected layers, or the making of one: the order that formulas know. */
export const SetCard = ({ ids }: { ids: readonly Id[] }) => {
  const editor = useEditor();
  const { scene, sets, picked } = useSlice((s) => ({
    scene: s.sceneId,
    sets: sceneOf(s).sets,
    picked: s.selection.layers,
  }));
  const setOf = new Map(sets.flatMap((s) => s.members.map((id) => [id, s] as const)));
  const set = ids.map((id) => setOf.get(id)).find((s) => s !== undefined);
  const loose = ids.filter((id) => !setOf.has(id));
  if (!set && ids.length < 2) return null;
  if (!set) {
    const lead = picked[0] ?? '';
    return (
      <Card title="Set" icon={<ListOrdered size={15} />}>
        <p className="text-sm text-ink-2">
          In a set each layer has an order: “{editor.scene.layers[lead]?.name}” leads with 0, the others follow as they
          were picked. Formulas read it as <code>order</code>.
        </p>
        <Button className="self-start" onClick={() => setOfSelection(editor)}>
          Make a set
        </Button>
      </Card>
    );
  }
  return (
    <Card title="Set" icon={<ListOrdered size={15} />} aside={`${set.members.length} layers`}>
      <div className="flex items-center">
        <RenameField
          label="Set name"
          value={set.name}
          className="min-w-0 flex-1"
          onRename={(name) => editor.edit(renameSet(editor.scene.id, set.id, name))}
        />
        <IconButton
          label="Remove the set; its layers stay"
          size="small"
          onClick={() => editor.edit(removeSet(editor.scene.id, set.id))}
        >
          <Trash2 size={13} />
        </IconButton>
      </div>
      {set.word && (
        <label className="flex flex-col gap-1">
          <span title="The text that these layers were split from: another one goes into them, and their motion stays">
            Words
          </span>
          <WordField key={set.id} label="Words of the set" scene={scene} set={set.id} word={set.word} />
        </label>
      )}
      <ol aria-label={`Layers of ${set.name}, in order`} className="max-h-44 overflow-y-auto">
        {set.members.map((id, i) => (
          <Member key={id} set={set} index={i} />
        ))}
      </ol>
      {loose.length > 0 && (
        <Button
          className="self-start"
          onClick={() => editor.edit(setMembers(editor.scene.id, set.id, [...set.members, ...loose]))}
        >
          Add {loose.length === 1 ? 'the other layer' : `the other ${loose.length}`}
        </Button>
      )}
    </Card>
  );
};
