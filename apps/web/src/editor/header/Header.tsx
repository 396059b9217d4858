import { Moon, PackageCheck, Redo2, Search, Sun, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { renameProject } from '@kite/core/edits/scenes';
import { useTheme } from '../../app/theme';
import { Button, buttonLook, IconButton } from '../../ui/Button';
import { ChecksMenu } from '../checks/ChecksMenu';
import { CommandButton } from '../commands/CommandButton';
import { COMMANDS } from '../commands/table';
import { RenameField } from '../../ui/RenameField';
import { People, RenderDialog } from '../later';
import { useEditor, useSlice } from '../store/context';
import type { SaveState } from '../store/saver';
import { PreviewMenu } from './PreviewMenu';
import { SceneStrip } from './SceneStrip';

const STATES: Record<SaveState['kind'], string> = {
  saved: 'Saved',
  saving: 'Saving …',
  away: 'Server away',
  stuck: 'Not saved',
};

const Saving = ({ saving }: { saving: SaveState }) => {
  const wrong = saving.kind === 'away' || saving.kind === 'stuck';
  const kept = wrong ? `${saving.waiting} edit${saving.waiting === 1 ? '' : 's'} kept in this browser` : '';
  const about =
    saving.kind === 'away'
      ? `${kept}; sent when the server is back`
      : saving.kind === 'stuck'
        ? `${kept}; ${saving.reason}`
        : undefined;
  return (
    <span
      role="status"
      data-testid="save-state"
      title={about}
      className={`text-sm ${wrong ? 'max-w-64 truncate rounded-md bg-sun-2 px-2 py-0.5 text-sun' : 'shrink-0 text-ink-2'}`}
    >
      {STATES[saving.kind]}
      {about && `: ${about}`}
    </span>
  );
};

export const Header = () => {
  const editor = useEditor();
  const { project, name, saving, past, future, rendering, alone } = useSlice((s) => ({
    alone: s.others.length === 0,
    rendering: s.rendering,
    project: s.doc.id,
    name: s.doc.name,
    saving: s.saving,
    past: s.past.at(-1)?.label,
    future: s.future.at(-1)?.label,
  }));
  const { theme, toggle } = useTheme();
  return (
    <header data-area="header" className="flex h-11 shrink-0 items-center gap-3 border-b border-line bg-paper px-3">
      <Link to="/" aria-label="All projects" className="shrink-0 rounded-md">
        <img src="/kite.svg" alt="" className="size-6" />
      </Link>
      <div className="flex max-w-[320px] shrink-0 items-baseline gap-2">
        <h1 className="sr-only">{name}</h1>
        <RenameField
          label="Project name"
          value={name}
          className="font-semibold"
          onRename={(next) => editor.edit(renameProject(next))}
        />
        <Saving saving={saving} />
      </div>
      <SceneStrip />
      <div className="ml-auto flex items-center gap-0.5">
        {!alone && <People />}
        <CommandButton command="search">
          <Search size={16} />
        </CommandButton>
        <CommandButton command="undo" {...(past && { label: `Undo: ${past}` })} disabled={!past}>
          <Undo2 size={16} />
        </CommandButton>
        <CommandButton command="redo" {...(future && { label: `Redo: ${future}` })} disabled={!future}>
          <Redo2 size={16} />
        </CommandButton>
        <IconButton label={theme === 'day' ? 'Dusk colours' : 'Daylight colours'} onClick={toggle}>
          {theme === 'day' ? <Moon size={15} /> : <Sun size={15} />}
        </IconButton>
        <ChecksMenu />
        <Link to={`/projects/${project}/deliveries`} className={buttonLook('outline', 'ml-1')}>
          <PackageCheck size={15} />
          Deliveries
        </Link>
        <PreviewMenu />
        <Button look="primary" className="ml-1.5" data-first onClick={() => COMMANDS.render.run(editor)}>
          Render
        </Button>
      </div>
      {rendering && <RenderDialog onClose={() => editor.set({ rendering: false })} />}
    </header>
  );
};
