import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';
import { useMutation } from '@tanstack/react-query';
import { RotateCcw, Trash2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { ask } from '../../api/client';
import { Button, buttonLook, IconButton } from '../../ui/Button';
import { duration, timeOf, weight } from '../../ui/units';
import { sayGone, sayWrong } from '../../ui/says';
import { PageHeader } from '../PageHeader';
import { RemovedDialog } from '../RemovedDialog';
import { comparable } from './comparable';
import { Detail } from './Detail';
import { RENDERS_KEY, titleOf, useRenders } from './useRenders';

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });

/** A time of today by the clock alone. */
const when = (time: string): string => {
  const at = new Date(time);
  return `${at.toDateString() === new Date().toDateString() ? '' : `${DAY.format(at)}, `}${timeOf(time)}`;
};

const removedOf = (render: Render) => ({
  id: render.id,
  name: titleOf(render),
  about: `${formatOf(render.settings.format).label} · ${render.projectName} · ${when(render.createdAt)}`,
});

const NAMES: Record<Render['status'], string> = {
  queued: 'Waiting',
  running: 'Rendering',
  done: 'Done',
  failed: 'Failed',
  cancelled: 'Cancelled',
};

/** From how long the frames so far took. */
const timeLeft = (render: Render, now: number): string => {
  if (!render.startedAt || render.done === 0) return '';
  const each = (now - Date.parse(render.startedAt)) / render.done;
  return `${duration(((render.total - render.done) * each) / 1000)} left`;
};

const useNow = (ticking: boolean): number => {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    if (!ticking) return;
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, [ticking]);
  return now;
};

const Row = ({ render, selected, onSelect }: { render: Render; selected: boolean; onSelect: () => void }) => {
  const now = useNow(render.status === 'running');
  const cancel = useMutation({ mutationFn: () => ask(RENDERS.cancel, { id: render.id }), onError: sayWrong });
  const retry = useMutation({ mutationFn: () => ask(RENDERS.retry, { id: render.id }), onError: sayWrong });
  const name = titleOf(render);
  const remove = useMutation({
    mutationFn: () => ask(RENDERS.remove, { id: render.id }),
    onSuccess: () => sayGone(`The render “${name}” was deleted.`, () => ask(RENDERS.restore, { id: render.id })),
    onError: sayWrong,
  });
  const { result } = render;
  const share = render.total > 0 ? render.done / render.total : 0;
  return (
    <li
      data-testid="render-row"
      data-status={render.status}
      className={`border-b border-line ${selected ? 'bg-sky-2' : 'hover:bg-paper-2'}`}
    >
      <div className="flex items-center gap-2 px-3 py-2">
        <button
          type="button"
          aria-current={selected}
          className="flex min-w-0 flex-1 items-center gap-3 rounded-md text-left"
          onClick={onSelect}
        >
          <span className="grid h-12 w-16 shrink-0 place-items-center overflow-hidden rounded-sm bg-surround">
            {render.pictured && (
              <img src={urlOf(RENDERS.picture, { id: render.id })} alt="" className="max-h-full max-w-full" />
            )}
          </span>
          <span className="min-w-0 flex-1">
            <span className="flex items-baseline gap-2">
              <span className="truncate font-medium">{name}</span>
              <span className="shrink-0 text-sm text-ink-2">{formatOf(render.settings.format).label}</span>
              <span
                className={`ml-auto shrink-0 text-sm ${render.status === 'failed' ? 'text-kite' : render.status === 'done' ? 'text-tail' : 'text-ink-2'}`}
              >
                {NAMES[render.status]}
              </span>
            </span>
            <span className="tabular block truncate text-sm text-ink-2">
              {result
                ? `${result.width} × ${result.height} · ${result.seconds > 0 ? `${result.seconds.toFixed(2)} s · ` : ''}${weight(result.bytes)}`
                : render.status === 'running'
                  ? `Frame ${render.done} of ${render.total} ${timeLeft(render, now)}`
                  : (render.error ?? '')}
            </span>
            <span className="block truncate text-sm text-ink-2">
              {render.projectName}
              {render.deliveryName !== null && ` · ${render.sceneName}`} · {when(render.createdAt)}, from{' '}
              {render.askedBy || 'this machine'}
            </span>
          </span>
        </button>
        {(render.status === 'queued' || render.status === 'running') && (
          <IconButton label="Cancel" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
            <X size={15} />
          </IconButton>
        )}
        {(render.status === 'failed' || render.status === 'cancelled') && (
          <IconButton label="Try again" disabled={retry.isPending} onClick={() => retry.mutate()}>
            <RotateCcw size={15} />
          </IconButton>
        )}
        {render.status !== 'queued' && render.status !== 'running' && (
          <IconButton label="Delete" disabled={remove.isPending || remove.isSuccess} onClick={() => remove.mutate()}>
            <Trash2 size={15} />
          </IconButton>
        )}
      </div>
      {render.status === 'running' && (
        <div
          role="progressbar"
          aria-label={`${render.sceneName}: frames done`}
          aria-valuemin={0}
          aria-valuemax={render.total}
          aria-valuenow={render.done}
          className="h-1 bg-paper-2"
        >
          <div className="h-full bg-kite" style={{ width: `${share * 100}%` }} />
        </div>
      )}
    </li>
  );
};

export const RendersPage = () => {
  const { data: renders, error, isPending } = useRenders();
  const [chosen, setChosen] = useState<string | null>(null);
  const [removed, setRemoved] = useState(false);
  const shown = renders?.find((r) => r.id === chosen) ?? renders?.[0];
  return (
    <div className="flex h-full flex-col">
      <PageHeader />
      <main className="flex min-h-0 flex-1">
        <div className="flex w-[440px] shrink-0 flex-col border-r border-line bg-paper">
          <div className="flex items-center py-2 pr-1 pl-3">
            <h1 className="mr-auto text-lg font-semibold">Renders</h1>
            <Button look="plain" icon={<Trash2 size={15} />} onClick={() => setRemoved(true)}>
              Deleted
            </Button>
          </div>
          {isPending && <p className="px-3 text-ink-2">Looking …</p>}
          {error && <p className="px-3 text-kite">The renders could not be listed. {error.message}</p>}
          <ul className="min-h-0 flex-1 overflow-y-auto border-t border-line">
            {renders?.map((r) => (
              <Row key={r.id} render={r} selected={r.id === shown?.id} onSelect={() => setChosen(r.id)} />
            ))}
          </ul>
        </div>
        {shown ? (
          <Detail key={shown.id} render={shown} others={comparable(shown, renders ?? [])} />
        ) : (
          renders && (
            <div className="grid flex-1 place-content-center gap-3 text-center text-ink-2">
              <p>Nothing rendered yet. Open a project and press Render.</p>
              <Link to="/" className={buttonLook('primary', 'mx-auto')}>
                Go to your projects
              </Link>
            </div>
          )
        )}
      </main>
      {removed && (
        <RemovedDialog
          title="Deleted renders"
          about="They are kept for a day, with their files."
          none="None was deleted in the last day."
          queryKey={RENDERS_KEY}
          list={async () => (await ask(RENDERS.removed)).map(removedOf)}
          restore={(id) => ask(RENDERS.restore, { id })}
          forget={() => ask(RENDERS.forget)}
          onClose={() => setRemoved(false)}
        />
      )}
    </div>
  );
};
