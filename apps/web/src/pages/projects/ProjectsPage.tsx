import { urlOf } from '@kite/api/call';
import { PROJECTS, type ProjectCard } from '@kite/api/projects';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Copy, Download, EllipsisVertical, Pencil, Plus, Trash2, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { FileInput } from '../../ui/FileInput';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { sayWrong } from '../../ui/says';
import { PageHeader } from '../PageHeader';
import { Moving } from './Moving';
import { Starters } from './Starters';
import { SizeForm } from './SizeForm';

const when = (iso: string): string => {
  const minutes = Math.round((Date.now() - Date.parse(iso)) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 60 * 24) return `${Math.round(minutes / 60)} h ago`;
  return new Date(iso).toLocaleDateString();
};

const Card = ({ project }: { project: ProjectCard }) => {
  const queries = useQueryClient();
  const [playing, setPlaying] = useState(false);
  const [renaming, setRenaming] = useState(false);
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
  const restore = useMutation({
    mutationFn: () => ask(PROJECTS.restore, { id: project.id }),
    onSuccess: refresh,
    onError: sayWrong,
  });
  const exporting = useMutation({
    mutationFn: () => ask(PROJECTS.checkArchive, { id: project.id }),
    onSuccess: () => {
      const link = document.createElement('a');
      link.href = urlOf(PROJECTS.archive, { id: project.id });
      link.download = '';
      link.click();
    },
    onError: sayWrong,
  });
  const remove = useMutation({
    mutationFn: () => ask(PROJECTS.remove, { id: project.id }),
    onSuccess: async () => {
      await refresh();
      toast(`“${project.name}” was deleted.`, {
        duration: 12_000,
        action: { label: 'Undo', onClick: () => restore.mutate() },
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
        <Moving project={project.id} revision={project.updatedAt} playing={playing} />
      </Link>
      <div className="flex items-center gap-1 py-2 pr-1.5 pl-3">
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
            {project.scenes} scene{project.scenes === 1 ? '' : 's'} · {when(project.updatedAt)}
          </span>
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
    </li>
  );
};

export const ProjectsPage = () => {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [adding, setAdding] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const { data: projects, error, isPending } = useQuery({ queryKey: ['projects'], queryFn: () => ask(PROJECTS.list) });
  const importing = useMutation({
    mutationFn: (blob: Blob) => ask(PROJECTS.import, blob),
    onSuccess: async ({ name }) => {
      await queries.invalidateQueries({ queryKey: ['projects'] });
      toast.success(`“${name}” was imported.`);
    },
    onError: (problem) => toast.error(`Nothing was imported. ${problem.message}`, { duration: 12_000 }),
  });
  return (
    <div className="flex h-full flex-col">
      <PageHeader />
      <main className="min-h-0 flex-1 overflow-y-auto">
        <div className="mx-auto max-w-[1216px] px-6 py-5">
          <div className="mb-4 flex items-center gap-2">
            <h1 className="mr-auto text-xl font-semibold">Projects</h1>
            <FileInput
              input={file}
              label="Project archive"
              accept=".kite,application/zip"
              onChoose={([chosen]) => chosen && importing.mutate(chosen)}
            />
            <Button icon={<Upload size={15} />} disabled={importing.isPending} onClick={() => file.current?.click()}>
              {importing.isPending ? 'Importing …' : 'Import'}
            </Button>
            <Button look="primary" icon={<Plus size={15} />} onClick={() => setAdding(true)}>
              New project
            </Button>
          </div>
          <Starters />
          <h2 className="mb-2 font-semibold">Yours</h2>
          {isPending && <p className="text-ink-2">Looking for your projects …</p>}
          {error && <p className="text-kite">Your projects could not be listed. {error.message}</p>}
          {projects?.length === 0 && (
            <div className="rounded-md border border-dashed border-line py-16 text-center">
              <p className="mb-3 text-ink-2">
                No projects yet. Begin with one of those above, with a size, or import an archive.
              </p>
              <Button look="primary" onClick={() => setAdding(true)}>
                New project
              </Button>
            </div>
          )}
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] gap-4">
            {projects?.map((p) => (
              <Card key={p.id} project={p} />
            ))}
          </ul>
        </div>
      </main>
      {adding && (
        <Dialog open onClose={() => setAdding(false)} title="New project" width={600}>
          <SizeForm
            name="Project name"
            suggested="Untitled"
            submit={(busy) => (
              <Button type="submit" look="primary" disabled={busy}>
                Create the project
              </Button>
            )}
            onSubmit={async (name, size) => {
              try {
                const { id } = await ask(PROJECTS.create, { name, scene: 'Scene 1', size });
                await queries.invalidateQueries({ queryKey: ['projects'] });
                await navigate(`/projects/${id}`);
              } catch (problem) {
                sayWrong(problem);
              }
            }}
          />
        </Dialog>
      )}
    </div>
  );
};
