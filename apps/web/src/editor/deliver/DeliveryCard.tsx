import { sceneOfDelivery } from '@kite/core/delivery/film';
import { formatOf, isFormat } from '@kite/core/delivery/formats/table';
import type { Delivery, Project, Scene } from '@kite/core/document/types';
import type { Finding } from '@kite/core/proof/types';
import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { urlOf } from '@kite/api/call';
import { type Render, RENDERS } from '@kite/api/renders';
import { useMoving } from '../../preview/useMoving';
import { buttonLook } from '../../ui/Button';
import { weight } from '../../ui/units';
import { Poster } from '../header/Poster';
import { useSlice } from '../store/context';
import { type DeliveryState, type FileState, isStale, sayingOf } from './useDelivered';

const BOX = { width: 128, height: 72 };

/** What a delivery shows, or why it shows nothing. */
export const shownBy = (delivery: Delivery, doc: Project): Scene | string => {
  try {
    return sceneOfDelivery(delivery, doc);
  } catch (error) {
    return (error as Error).message;
  }
};

/** What there is to look at in a delivery: in its scenes, and in what is made of them. */
export const findingsOf = (
  { id, scenes, everyVersion }: Delivery,
  findings: readonly Finding[] | null,
): readonly Finding[] =>
  (findings ?? []).filter(({ scene, delivery, version }) => {
    if (delivery !== undefined) return delivery === id;
    return scenes.includes(scene) && (version === undefined || everyVersion);
  });

/** What came of a render, to be kept. */
export const DownloadLink = ({ render: { id, fileName, result } }: { render: Render }) =>
  result && (
    <a
      href={urlOf(RENDERS.file, { id, download: '' })}
      aria-label={`Download ${fileName}`}
      className={buttonLook('outline', 'tabular text-sm')}
    >
      <Download size={14} /> {weight(result.bytes)}
    </a>
  );

/** Plays while it is there. */
const Playing = ({ scene }: { scene: Scene }) => {
  const doc = useSlice((s) => s.doc);
  const withFilm = useMemo(() => ({ ...doc, scenes: { ...doc.scenes, [scene.id]: scene } }), [doc, scene]);
  const { canvas, style } = useMoving(withFilm, scene.id, BOX);
  return <canvas ref={canvas} aria-hidden data-testid="delivery-playing" style={style} />;
};

/** One line on how all of its files stand, and its tone. */
const saying = (files: DeliveryState): readonly [text: string, tone: string] => {
  const [first] = files;
  const wrong = files.find(({ standing }) => standing?.problem) ?? (files.length === 1 ? first : undefined);
  if (wrong) return sayingOf(wrong);
  const count = (which: (file: FileState) => boolean) => files.filter(which).length;
  const coming = count(({ latest }) => latest?.status === 'queued' || latest?.status === 'running');
  if (coming > 0) return [`${files.length - coming} of ${files.length} files done`, 'text-ink-2'];
  const failed = count(({ latest }) => latest?.status === 'failed');
  if (failed > 0) return [`${failed} of ${files.length} files failed`, 'text-kite'];
  const stale = count(isStale);
  if (stale === 0) return [`${files.length} files up to date`, 'text-tail'];
  return files.some(({ standing }) => standing?.last)
    ? [`${stale} of ${files.length} files out of date`, 'text-sun']
    : [`${files.length} files, never rendered`, 'text-ink-2'];
};

interface DeliveryCardProps {
  delivery: Delivery;
  state: DeliveryState;
  current: boolean;
  chosen: boolean;
  onOpen: () => void;
  onChoose: (chosen: boolean) => void;
}

export const DeliveryCard = ({ delivery, state, current, chosen, onOpen, onChoose }: DeliveryCardProps) => {
  const doc = useSlice((s) => s.doc);
  const [playing, setPlaying] = useState(false);
  const scene = useMemo(() => shownBy(delivery, doc), [delivery, doc]);
  const there = delivery.scenes.flatMap((id) => doc.scenes[id] ?? []);
  const { format } = delivery.settings;
  const [text, tone] = saying(state);
  const count = useSlice((s) => findingsOf(delivery, s.findings).length);
  const last = state.length === 1 ? state[0]?.standing?.last : undefined;
  return (
    <li
      data-testid="delivery"
      className={`flex items-center gap-3 border-b border-line px-4 py-2.5 ${current ? 'bg-sky-2' : 'hover:bg-paper-2'}`}
      onPointerEnter={() => setPlaying(true)}
      onPointerLeave={() => setPlaying(false)}
    >
      <input
        type="checkbox"
        aria-label={`Choose ${delivery.name}`}
        checked={chosen}
        onChange={(event) => onChoose(event.target.checked)}
      />
      <button
        type="button"
        aria-current={current}
        className="flex min-w-0 flex-1 items-center gap-3 rounded-md text-left"
        onClick={onOpen}
        onFocus={() => setPlaying(true)}
        onBlur={() => setPlaying(false)}
      >
        <span className="grid h-[72px] w-32 shrink-0 place-items-center overflow-hidden rounded-md bg-surround">
          {playing && typeof scene !== 'string' ? (
            <Playing scene={scene} />
          ) : (
            there[0] && <Poster id={there[0].id} height={72} widest={128} className="object-contain" />
          )}
        </span>
        <span className="min-w-0 flex-1">
          <span className="flex items-baseline gap-2">
            <span className="truncate font-medium">{delivery.name}</span>
            <span className="shrink-0 text-sm text-ink-2">{isFormat(format) && formatOf(format).label}</span>
          </span>
          <span className="block truncate text-sm text-ink-2">
            {there.map((s) => s.name).join(delivery.fade > 0 ? ' ∕ ' : ' · ')}
          </span>
          <span className="tabular flex gap-2 text-sm">
            <span className={`truncate ${tone}`}>{text}</span>
            {count > 0 && <span className="shrink-0 text-sun">{count} to look at</span>}
          </span>
        </span>
      </button>
      {last && <DownloadLink render={last} />}
    </li>
  );
};
