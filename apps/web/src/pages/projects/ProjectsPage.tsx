import { urlOf } from '@kite/api/call';
import { PROJECTS } from '@kite/api/projects';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Plus, Trash2, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { download } from '../../ui/download';
import { FileInput } from '../../ui/FileInput';
import { sayWrong } from '../../ui/says';
import { Select } from '../../ui/Select';
import { many } from '../../ui/units';
import { PageHeader } from '../PageHeader';
import { RemovedDialog } from '../RemovedDialog';
import { Card } from './Card';
import { shownOf, type Sort, SORTS, tagsOf, type Wanted, wantedIn } from './finding';
import { importProjects, quoted } from './importing';
import { Starters } from './Starters';
import { later } from '../../ui/later';

const SizeForm = later(async () => (await import('./SizeForm')).SizeForm);

export const ProjectsPage = () => {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [adding, setAdding] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const { data: projects, error, isPending } = useQuery({ queryKey: ['projects'], queryFn: () => ask(PROJECTS.list) });
  const importing = useMutation({
    mutationFn: importProjects,
    onSuccess: (names) => {
      if (names.length > 0) toast.success(`${quoted(names)} ${names.length === 1 ? 'was' : 'were'} imported.`);
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ['projects'] }),
  });
  const [params, setParams] = useSearchParams();
  const wanted = wantedIn(params);
  const want = (part: Partial<Wanted>) => {
    const { find, tag, sort } = { ...wanted, ...part };
    const next = { ...(find && { find }), ...(tag && { tag }), ...(sort !== 'changed' && { sort }) };
    setParams(next, { replace: true });
  };
  const [removed, setRemoved] = useState(false);
  const shown = shownOf(projects ?? [], wanted);
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
              multiple
              onChoose={(chosen) => importing.mutate(chosen)}
            />
            <Button icon={<Upload size={15} />} disabled={importing.isPending} onClick={() => file.current?.click()}>
              {importing.isPending ? 'Importing …' : 'Import'}
            </Button>
            <Button look="primary" icon={<Plus size={15} />} onClick={() => setAdding(true)}>
              New project
            </Button>
          </div>
          <Starters />
          <div className="mb-2 flex items-center gap-2">
            <h2 className="font-semibold">Yours</h2>
            {(projects?.length ?? 0) > 0 && (
              <>
                <input
                  type="search"
                  aria-label="Find a project"
                  placeholder="Find by name or word"
                  value={wanted.find}
                  className="ml-2 h-[28px] w-56 rounded-md border border-line bg-paper px-2"
                  onChange={(event) => want({ find: event.target.value })}
                />
                <Select
                  aria-label="Order of projects"
                  className="w-36 rounded-md border border-line"
                  value={wanted.sort}
                  options={Object.entries(SORTS).map(([value, label]) => ({ value, label }))}
                  onChange={(sort) => want({ sort: sort as Sort })}
                />
              </>
            )}
            <div role="group" aria-label="Words" className="flex min-w-0 flex-1 gap-1 overflow-x-auto">
              {tagsOf(projects ?? []).map((tag) => (
                <button
                  key={tag}
                  type="button"
                  aria-pressed={wanted.tag === tag}
                  className="shrink-0 rounded-md border border-line px-2 leading-6 aria-pressed:border-sky aria-pressed:bg-sky-2"
                  onClick={() => want({ tag: wanted.tag === tag ? null : tag })}
                >
                  {tag}
                </button>
              ))}
            </div>
            <Button look="plain" icon={<Trash2 size={15} />} onClick={() => setRemoved(true)}>
              Deleted
            </Button>
            <Button
              look="plain"
              icon={<Download size={15} />}
              disabled={!projects?.length}
              onClick={() => download(urlOf(PROJECTS.archives, {}))}
            >
              Export all
            </Button>
          </div>
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
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] items-start gap-4">
            {shown.map((p) => (
              <Card key={p.id} project={p} onTag={(tag) => want({ tag })} />
            ))}
          </ul>
          {shown.length === 0 && (projects?.length ?? 0) > 0 && (
            <div className="rounded-md border border-dashed border-line py-10 text-center">
              <p className="mb-3 text-ink-2">None of your projects is found by that.</p>
              <Button onClick={() => want({ find: '', tag: null })}>Show all of them</Button>
            </div>
          )}
        </div>
      </main>
      {removed && (
        <RemovedDialog
          title="Deleted projects"
          about="They are kept for 30 days, with all that was in them."
          none="None was deleted in the last 30 days."
          queryKey={['projects']}
          list={async () =>
            (await ask(PROJECTS.removed)).map(({ id, name, scenes, updatedAt }) => ({
              id,
              name,
              about: `${many(scenes, 'scene')} · deleted ${new Date(updatedAt).toLocaleDateString()}`,
            }))
          }
          restore={(id) => ask(PROJECTS.restore, { id })}
          onClose={() => setRemoved(false)}
        />
      )}
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
