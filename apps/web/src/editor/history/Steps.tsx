import type { Patch } from '@kite/core/document/patches';
import type { Project } from '@kite/core/document/types';
import { whatChanged } from '@kite/core/properties/changed';
import { clsx } from 'clsx';
import { ChevronRight, EllipsisVertical } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { myself } from '../../app/person';
import { Button } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { sayWrong } from '../../ui/says';
import { useEditor, useSlice } from '../store/context';
import { type Entry, standing } from '../store/steps';
import { timeOf } from '../../ui/units';
import { byDay } from './days';
import { ChangedList } from './ChangedList';
import { keepState, openAsCopy } from './states';

const Details = ({ entry, doc }: { entry: Entry; doc: Project }) => {
  const changed = useMemo(() => {
    // What is gone by now has its name in what took it away, or brought it.
    const { patches, inverse } = entry;
    return whatChanged([doc], patches, inverse ?? []);
  }, [doc, entry]);
  return (
    <div className="border-l-2 border-line py-1 pl-2">
      <ChangedList changed={changed} />
    </div>
  );
};

/** The layer that patches are about, or how many they are. */
const layersOf = (doc: Project, patches: readonly Patch[]): string => {
  const ids = new Set<string>();
  for (const { path } of patches) if (path[0] === 'scenes' && path[2] === 'layers') ids.add(`${path[1]}/${path[3]}`);
  const [only] = ids;
  if (only === undefined || ids.size > 1) return only === undefined ? '' : `${ids.size} layers`;
  const [scene, layer] = only.split('/') as [string, string];
  return doc.scenes[scene]?.layers[layer]?.name ?? '';
};

interface StepProps {
  entry: Entry;
  undone: boolean;
  last: boolean;
  /** Whether it can be gone to by undoing or redoing. */
  reached: boolean;
  doc: Project;
}

const Step = ({ entry, undone, last, reached, doc }: StepProps) => {
  const editor = useEditor();
  const navigate = useNavigate();
  const [open, setOpen] = useState(false);
  const { label, by, at, revision, id } = entry;
  const mine = by?.id === myself().id;
  const of = useMemo(() => layersOf(doc, entry.patches), [doc, entry]);
  const state = revision === undefined ? null : { state: String(revision), name: label };
  const compare = () => state && editor.set({ comparing: state });
  return (
    <li data-testid="step">
      <div className={clsx('group flex items-center rounded-md', last ? 'bg-sky-2' : 'hover:bg-paper-2')}>
        <button
          type="button"
          aria-label={`What “${label}” changed`}
          aria-expanded={open}
          className="grid h-7 w-5 shrink-0 place-items-center text-ink-2"
          onClick={() => setOpen(!open)}
        >
          <ChevronRight size={13} className={open ? 'rotate-90' : ''} />
        </button>
        <button
          type="button"
          aria-current={last}
          disabled={!reached && !state}
          title={`${label} · ${timeOf(at)}${mine || !by ? '' : ` · ${by.name}`}`}
          onClick={() => (reached ? editor.goTo(id) : compare())}
          className={clsx(
            'min-w-0 flex-1 truncate py-1 text-left',
            last && 'font-medium',
            undone && 'text-ink-2 italic',
          )}
        >
          {label} {of && <span className="font-normal text-ink-2">{of}</span>}
        </button>
        <span className="max-w-20 shrink-0 truncate px-1.5 text-xs text-ink-2 group-focus-within:hidden group-hover:hidden">
          {mine || !by ? timeOf(at) : by.name}
        </span>
        {state && (
          <Menu
            trigger={
              <button
                type="button"
                aria-label={`${label}: more`}
                className="hidden size-6 shrink-0 place-items-center text-ink-2 group-focus-within:grid group-hover:grid data-[state=open]:grid"
              >
                <EllipsisVertical size={14} />
              </button>
            }
            entries={[
              { label: 'Compare with now', onSelect: () => void compare() },
              { label: 'Keep as a checkpoint', onSelect: () => void keepState(editor, label, revision ?? null) },
              {
                label: 'Open as a copy',
                onSelect: () => void openAsCopy(editor, state, (to) => void navigate(`/projects/${to}`)),
              },
            ]}
          />
        )}
      </div>
      {open && <Details entry={entry} doc={doc} />}
    </li>
  );
};

/** Everything that was done, by day, the last first. A press on one's own step goes there; on another's it is looked at. */
export const Steps = () => {
  const editor = useEditor();
  const { log, more, past, future, doc } = useSlice((s) => ({
    log: s.log,
    more: s.moreBefore,
    past: s.past,
    future: s.future,
    doc: s.doc,
  }));
  const reached = useMemo(() => new Set([...past, ...future].map(({ id }) => id)), [past, future]);
  const [now] = useState(() => Date.now());
  const steps = useMemo(() => standing(log).toReversed(), [log]);
  const last = steps.find(({ undone }) => !undone);
  return (
    <section aria-label="Steps">
      {steps.length === 0 && <p className="mt-2 text-ink-2">Nothing was done to this project yet.</p>}
      {byDay(steps, ({ entry }) => entry.at, now).map(([day, of]) => (
        <section key={day}>
          <h3 className="mt-2 mb-0.5 text-sm font-semibold">{day}</h3>
          <ol>
            {of.map((step) => (
              <Step key={step.entry.id} {...step} last={step === last} reached={reached.has(step.entry.id)} doc={doc} />
            ))}
          </ol>
        </section>
      ))}
      {more && (
        <Button className="mt-2 w-full" onClick={() => void editor.readBefore().catch(sayWrong)}>
          Earlier steps
        </Button>
      )}
    </section>
  );
};
