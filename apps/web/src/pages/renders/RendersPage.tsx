import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';
import { useMutation } from '@tanstack/react-query';
import { Download, ExternalLink, RotateCcw, Trash2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { ask, bannerUrl, deliveredUrl } from '../../api/client';
import { IconButton } from '../../ui/Button';
import { PageHeader } from '../PageHeader';
import { useRenders } from './useRenders';

const says = (error: unknown) => toast.error(error instanceof Error ? error.message : String(error));

const weight = (bytes: number): string =>
  bytes < 1024
    ? `${bytes} B`
    : bytes < 2 ** 20
      ? `${(bytes / 1024).toFixed(0)} KB`
      : `${(bytes / 2 ** 20).toFixed(1)} MB`;

const duration = (seconds: number): string =>
  seconds < 60
    ? `${Math.max(1, Math.round(seconds))} s`
    : `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;

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
  const cancel = useMutation({ mutationFn: () => ask(RENDERS.cancel, { id: render.id }), onError: says });
  const retry = useMutation({ mutationFn: () => ask(RENDERS.retry, { id: render.id }), onError: says });
  const remove = useMutation({ mutationFn: () => ask(RENDERS.remove, { id: render.id }), onError: says });
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
          className="min-w-0 flex-1 rounded-md text-left"
          onClick={onSelect}
        >
          <span className="flex items-baseline gap-2">
            <span className="truncate font-medium">{render.sceneName}</span>
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
                : (render.error ?? render.projectName)}
          </span>
        </button>
        {(render.status === 'queued' || render.status === 'running') && (
          <IconButton label="Cancel" onClick={() => cancel.mutate()}>
            <X size={15} />
          </IconButton>
        )}
        {(render.status === 'failed' || render.status === 'cancelled') && (
          <IconButton label="Try again" onClick={() => retry.mutate()}>
            <RotateCcw size={15} />
          </IconButton>
        )}
        {render.status !== 'queued' && render.status !== 'running' && (
          <IconButton label="Delete" onClick={() => remove.mutate()}>
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

const Player = ({ render }: { render: Render }) => {
  const { result, settings } = render;
  if (!result) return null;
  const url = urlOf(RENDERS.file, { id: render.id });
  const fit = { maxWidth: '100%', maxHeight: '100%' };
  switch (formatOf(settings.format).shownAs) {
    case 'video':
      return <video key={render.id} src={url} controls autoPlay loop muted style={fit} />;
    case 'image':
      return <img key={render.id} src={url} alt={render.sceneName} style={fit} />;
    case 'file':
      return (
        <p className="max-w-md rounded-md bg-paper px-4 py-3 text-center">
          {formatOf(settings.format).label}: a file for other programs. Download it to see it there.
        </p>
      );
    case 'page':
      return (
        <iframe
          key={render.id}
          title={`Banner ${render.sceneName}`}
          src={bannerUrl(render.id)}
          sandbox="allow-scripts allow-popups"
          width={result.width}
          height={result.height}
          className="shrink-0 border-0"
        />
      );
  }
};

const Detail = ({ render }: { render: Render }) => {
  const { result } = render;
  return (
    <section aria-label="Result" className="flex min-h-0 min-w-0 flex-1 flex-col">
      <div className="grid min-h-0 flex-1 place-items-center overflow-auto bg-surround p-5">
        {result ? (
          <Player render={render} />
        ) : (
          <p className="max-w-md rounded-md bg-paper px-4 py-3 text-center">
            {render.status === 'failed'
              ? `This render failed. ${render.error ?? ''} The project is as it was; try again once that is mended.`
              : render.status === 'cancelled'
                ? 'This render was cancelled. It can be tried again.'
                : 'What comes of this render will play here.'}
          </p>
        )}
      </div>
      <footer className="flex items-center gap-4 border-t border-line bg-paper px-4 py-2.5">
        <div className="min-w-0 flex-1">
          <p className="truncate font-medium">
            {render.projectName} · {render.sceneName}
          </p>
          {result && (
            <p className="tabular text-sm text-ink-2">
              {result.width} × {result.height} px
              {result.seconds > 0 && ` · ${result.frames} frames · ${result.seconds.toFixed(2)} s`} ·{' '}
              {weight(result.bytes)}
            </p>
          )}
          {result?.notes.map((note) => (
            <p key={note} className="text-sm text-sun">
              {note}
            </p>
          ))}
        </div>
        {result && formatOf(render.settings.format).shownAs !== 'file' && (
          <a
            href={deliveredUrl(render)}
            target="_blank"
            rel="noreferrer"
            className="mr-2 inline-flex h-[30px] items-center gap-1.5 rounded-md border border-line px-3 hover:bg-paper-2"
          >
            <ExternalLink size={15} /> Open as delivered
          </a>
        )}
        {result && (
          <a
            href={urlOf(RENDERS.file, { id: render.id, download: '' })}
            className="inline-flex h-[30px] items-center gap-1.5 rounded-md bg-kite px-3 font-semibold text-kite-ink"
          >
            <Download size={15} /> Download
          </a>
        )}
      </footer>
    </section>
  );
};

export const RendersPage = () => {
  const { data: renders, error, isPending } = useRenders();
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = renders?.find((r) => r.id === chosen) ?? renders?.[0];
  return (
    <div className="flex h-full flex-col">
      <PageHeader />
      <main className="flex min-h-0 flex-1">
        <div className="flex w-[400px] shrink-0 flex-col border-r border-line bg-paper">
          <h1 className="px-3 py-3 text-lg font-semibold">Renders</h1>
          {isPending && <p className="px-3 text-ink-2">Looking …</p>}
          {error && <p className="px-3 text-kite">The renders could not be listed. {error.message}</p>}
          <ul className="min-h-0 flex-1 overflow-y-auto border-t border-line">
            {renders?.map((r) => (
              <Row key={r.id} render={r} selected={r.id === shown?.id} onSelect={() => setChosen(r.id)} />
            ))}
          </ul>
        </div>
        {shown ? (
          <Detail render={shown} />
        ) : (
          <p className="grid flex-1 place-items-center text-ink-2">
            {renders && 'Nothing rendered yet. Open a project and press Render.'}
          </p>
        )}
      </main>
    </div>
  );
};
