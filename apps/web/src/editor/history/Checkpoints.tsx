import { HISTORY, type Checkpoint } from '@kite/api/history';
import { useMutation } from '@tanstack/react-query';
import { EllipsisVertical, Flag } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { sayGone, sayWrong } from '../../ui/says';
import { timeOf } from '../../ui/units';
import { useEditor, useSlice } from '../store/context';
import { dayName } from './days';
import { goBackTo, keepState, openAsCopy, readCheckpoints, useCheckpoints } from './states';

const Row = ({ project, checkpoint: { id, name, at, by } }: { project: string; checkpoint: Checkpoint }) => {
  const editor = useEditor();
  const navigate = useNavigate();
  const [renaming, setRenaming] = useState(false);
  const [now] = useState(() => Date.now());
  const again = { onError: sayWrong, onSettled: () => readCheckpoints(project) };
  const rename = useMutation({
    mutationFn: (next: string) => ask(HISTORY.renameCheckpoint, { id: project, checkpoint: id }, { name: next }),
    ...again,
  });
  const letGo = useMutation({
    mutationFn: () => ask(HISTORY.removeCheckpoint, { id: project, checkpoint: id }),
    onSuccess: () =>
      sayGone(`The checkpoint “${name}” was let go.`, async () => {
        await ask(HISTORY.restoreCheckpoint, { id: project, checkpoint: id });
        await readCheckpoints(project);
      }),
    ...again,
  });
  const state = { state: id, name };
  return (
    <li className="flex items-center gap-1.5 rounded-md py-0.5 hover:bg-paper-2">
      <Flag size={13} className="shrink-0 text-sky" />
      <button
        type="button"
        aria-label={`Compare ${name} with now`}
        className="min-w-0 flex-1 text-left"
        onClick={() => editor.set({ comparing: state })}
      >
        <RenameField
          label="Name of the checkpoint"
          value={name}
          className="block"
          editing={renaming}
          onDone={() => setRenaming(false)}
          onRename={(next) => rename.mutate(next)}
        />
        <span className="block truncate text-xs text-ink-2">
          {dayName(at, now)}, {timeOf(at)}
          {by !== null && ` · ${by}`}
        </span>
      </button>
      <Menu
        trigger={
          <button type="button" aria-label={`${name}: more`} className="grid size-6 place-items-center text-ink-2">
            <EllipsisVertical size={14} />
          </button>
        }
        entries={[
          { label: 'Compare with now', onSelect: () => editor.set({ comparing: state }) },
          { label: 'Go back to it', onSelect: () => void goBackTo(editor, state) },
          {
            label: 'Open as a copy',
            onSelect: () => void openAsCopy(editor, state, (to) => void navigate(`/projects/${to}`)),
          },
          { label: 'Rename', onSelect: () => setTimeout(() => setRenaming(true), 0) },
          null,
          { label: 'Let go', danger: true, onSelect: () => letGo.mutate() },
        ]}
      />
    </li>
  );
};

/** States that are kept under names, for as long as nobody lets go of them. */
export const Checkpoints = () => {
  const editor = useEditor();
  const project = useSlice((s) => s.doc.id);
  const [name, setName] = useState('');
  const { data: kept = [] } = useCheckpoints(project);
  return (
    <section aria-label="Checkpoints">
      <form
        className="flex gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          setName('');
          void keepState(editor, name.trim(), null);
        }}
      >
        <input
          aria-label="Name for how it is now"
          placeholder="Keep this state as"
          value={name}
          maxLength={200}
          className="h-[28px] min-w-0 flex-1 rounded-md bg-paper-2 px-2"
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" disabled={name.trim() === ''} className="h-[28px]">
          Keep
        </Button>
      </form>
      <ul className="mt-1">
        {kept.map((checkpoint) => (
          <Row key={checkpoint.id} project={project} checkpoint={checkpoint} />
        ))}
      </ul>
    </section>
  );
};
