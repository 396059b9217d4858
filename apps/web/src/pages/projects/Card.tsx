import { urlOf } from '@kite/api/call';
import { PROJECTS, type ProjectCard } from '@kite/api/projects';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Copy, Download, EllipsisVertical, Pencil, Tag, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { ask } from '../../api/client';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { download } from '../../ui/download';
import { sayGone, sayWrong } from '../../ui/says';
import { many } from '../../ui/units';
import { Moving } from '../../preview/Moving';
import { TagsDialog } from './TagsDialog';

const when = (iso: string): string => {
  const minutes = Math.round((Date.now() - Date.parse(iso)) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 60 * 24) return `${Math.round(minutes / 60)} h ago`;
  return new Date(iso).toLocaleDateString();
};

/** CSS pixels. */
const BOX = { width: 280, height: 157.5 };

/** Words of a project on its card: as many as stand in two lines. */
const MOST_SHOWN = 3;

interface CardProps {
  project: ProjectCard;
  /** Asks for a word that it is found by. */
  onTag: (tag: string) => void;
}

export const Card = ({ project, onTag }: CardProps) => {
  const queries = useQueryClient();
  const [playing, setPlaying] = useState(false);
  const [renaming, setRenaming] = useState(false);
  const [tagging, setTagging] = useState(false);
  const refresh = () => queries.invalidateQueries({ queryKey: ['projects'] });
  const rename = useMutation({
    mutationFn: (name: string) => ask(PROJECTS.rename, { id: project.id }, { name }),
    onSuccess: refresh,
    onError: sayWrong,
  });
  const duplicate = useMutation({
    mutationFn: () => ask(PROJECTS.duplicate, { id: project.id }),
    onSuccess: refresh,
    onError: sayWrong,
  });
  const exporting = useMutation({
    mutationFn: () => ask(PROJECTS.checkArchive, { id: project.id }),
    onSuccess: () => download(urlOf(PROJECTS.archive, { id: project.id })),
    onError: sayWrong,
  });
  const remove = useMutation({
    mutationFn: () => ask(PROJECTS.remove, { id: project.id }),
    onSuccess: async () => {
      await refresh();
      sayGone(`“${project.name}” was deleted.`, async () => {
        await ask(PROJECTS.restore, { id: project.id });
        await refresh();
      });
    },
    onError: sayWrong,
  });
  return (
    <li
      data-testid="project-card"
      className="overflow-hidden rounded-md border border-line bg-paper focus-within:border-sky hover:border-ink-2"
      onPointerEnter={() => setPlaying(true)}
      onPointerLeave={() => setPlaying(false)}
      onFocus={() => setPlaying(true)}
      onBlur={() => setPlaying(false)}
    >
      <Link to={`/projects/${project.id}`} aria-label={`Open ${project.name}`} className="block">
        <Moving
          poster={urlOf(PROJECTS.poster, { id: project.id, at: project.updatedAt })}
          queryKey={['project', project.id, project.updatedAt]}
          fetchDocument={() => ask(PROJECTS.open, { id: project.id })}
          box={BOX}
          playing={playing}
        />
      </Link>
      <div className="flex items-start gap-1 py-2 pr-1.5 pl-3">
        <div className="min-w-0 flex-1">
          <RenameField
            label="Project name"
            value={project.name}
            className="block font-medium"
            editing={renaming}
            onDone={() => setRenaming(false)}
            onRename={(name) => rename.mutate(name)}
          />
          <span className="text-sm text-ink-2">
            {many(project.scenes, 'scene')} · {when(project.updatedAt)}
          </span>
          {project.tags.length > 0 && (
            <span className="mt-1 flex flex-wrap gap-1">
              {project.tags.slice(0, MOST_SHOWN).map((tag) => (
                <button
                  key={tag}
                  type="button"
                  title={`All that are found by “${tag}”`}
                  className="max-w-28 truncate rounded-sm bg-paper-2 px-1.5 text-xs leading-5 hover:bg-sky-2"
                  onClick={() => onTag(tag)}
                >
                  {tag}
                </button>
              ))}
              {project.tags.length > MOST_SHOWN && (
                <span className="text-xs leading-5 text-ink-2" title={project.tags.join(', ')}>
                  +{project.tags.length - MOST_SHOWN}
                </span>
              )}
            </span>
          )}
        </div>
        <Menu
          trigger={
            <button
              type="button"
              aria-label={`${project.name}: more`}
              className="grid size-7 place-items-center rounded-md text-ink-2 hover:bg-paper-2"
            >
              <EllipsisVertical size={16} />
            </button>
          }
          entries={[
            { label: 'Rename', icon: <Pencil size={14} />, onSelect: () => setTimeout(() => setRenaming(true), 0) },
            { label: 'Words to find it by', icon: <Tag size={14} />, onSelect: () => setTagging(true) },
            { label: 'Duplicate', icon: <Copy size={14} />, onSelect: () => duplicate.mutate() },
            {
              label: 'Export',
              icon: <Download size={14} />,
              onSelect: () => exporting.mutate(),
            },
            null,
            { label: 'Delete', icon: <Trash2 size={14} />, danger: true, onSelect: () => remove.mutate() },
          ]}
        />
      </div>
      {tagging && <TagsDialog project={project} onClose={() => setTagging(false)} />}
    </li>
  );
};
