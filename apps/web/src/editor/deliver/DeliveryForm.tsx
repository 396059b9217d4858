import { formatOf, type RenderSettings } from '@kite/core/delivery/formats/table';
import { keptSettings, settingsOf } from '@kite/core/delivery/kept';
import { fileNameOf, NAME_PARTS, nameFacts, strangeParts } from '@kite/core/delivery/naming';
import { LIMITS } from '@kite/core/document/limits';
import { uniqueName } from '@kite/core/document/make';
import type { Delivery, Id, Scene, Version } from '@kite/core/document/types';
import { addDelivery, moveDelivery, removeDelivery, setDelivery } from '@kite/core/edits/deliveries';
import { ArrowDown, ArrowUp, Copy, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../ui/Button';
import { CheckField } from '../../ui/CheckField';
import { NumberField } from '../../ui/NumberField';
import { Select } from '../../ui/Select';
import { TextLine } from '../../ui/TextLine';
import { FindingList } from '../checks/FindingList';
import { planned, Row, SettingsForm } from '../render/SettingsForm';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { DownloadLink, findingsOf, shownBy } from './DeliveryCard';
import { type DeliveryState, isStale, sayingOf } from './useDelivered';

/** What is shown, in order: one more is a film. */
const Scenes = ({ delivery, set }: { delivery: Delivery; set: (fields: Partial<Delivery>) => void }) => {
  const doc = useSlice((s) => s.doc);
  const options = doc.order.map((id) => ({ value: id, label: doc.scenes[id]?.name ?? id }));
  const put = (i: number, id: Id) => set({ scenes: delivery.scenes.map((own, j) => (j === i ? id : own)) });
  return (
    <div className="flex min-w-0 flex-1 flex-col gap-1.5">
      {delivery.scenes.map((id, i) => (
        <div key={i} className="flex items-center gap-1.5">
          <Select
            aria-label={`Scene ${i + 1}`}
            className="flex-1"
            value={id}
            options={doc.scenes[id] ? options : [{ value: id, label: 'A scene that was deleted' }, ...options]}
            onChange={(next) => put(i, next)}
          />
          {delivery.scenes.length > 1 && (
            <IconButton
              label={`Leave scene ${i + 1} out`}
              onClick={() => set({ scenes: delivery.scenes.filter((_, j) => j !== i) })}
            >
              <X size={14} />
            </IconButton>
          )}
        </div>
      ))}
      <Button
        className="!h-[26px] self-start !px-2 text-sm"
        disabled={delivery.scenes.length >= LIMITS.scenes}
        onClick={() => set({ scenes: [...delivery.scenes, delivery.scenes.at(-1) ?? (doc.order[0] as Id)] })}
      >
        One more, as a film
      </Button>
    </div>
  );
};

/** The file of each version, and how it stands. */
const Files = ({ state, rows }: { state: DeliveryState; rows: readonly Version[] }) => (
  <ul aria-label="Files of versions" className="max-h-56 shrink-0 overflow-y-auto border-t border-line px-5 py-1.5">
    {state.map((file) => {
      const { version = null, last } = file.standing ?? {};
      const [text, tone] = sayingOf(file);
      return (
        <li key={version ?? ''} className="flex h-8 items-center gap-3">
          <span className="min-w-0 flex-1 truncate">{rows.find(({ id }) => id === version)?.name}</span>
          <span className={`tabular text-sm ${tone}`}>{text}</span>
          {last && <DownloadLink render={last} />}
        </li>
      );
    })}
  </ul>
);

interface DeliveryFormProps {
  delivery: Delivery;
  state: DeliveryState;
  onOpen: (id: Id | null) => void;
  /** Of all of its files, or of those alone that are out of date. */
  onRender: (only: { readonly stale?: boolean }) => void;
}

export const DeliveryForm = ({ delivery, state, onOpen, onRender }: DeliveryFormProps) => {
  const editor = useEditor();
  const doc = useSlice((s) => s.doc);
  const set = (fields: Partial<Omit<Delivery, 'id'>>) => editor.edit(setDelivery(delivery.id, fields));
  const scene = shownBy(delivery, doc);
  const findings = useSlice((s) => findingsOf(delivery, s.findings));
  const strange = strangeParts(delivery.file);
  const { rows } = doc.versions;
  const each = delivery.everyVersion && rows.length > 0;
  const stale = state.filter(isStale).length;
  const at = doc.deliveries.indexOf(delivery);
  const copy = () => {
    const name = uniqueName(
      delivery.name,
      doc.deliveries.map((d) => d.name),
    );
    const id = makeId();
    editor.edit(addDelivery({ ...delivery, id, name }));
    onOpen(id);
  };
  /** What is typed and does not fit yet: it is not the document's. */
  const [draft, setDraft] = useState<RenderSettings | null>(null);
  const settings = typeof scene === 'string' ? null : (draft ?? settingsOf(delivery, scene));
  const change = (next: RenderSettings, of: Scene) => {
    const fits = typeof planned(of, next) !== 'string';
    setDraft(fits ? null : next);
    if (fits) set({ settings: keptSettings(next, of) });
  };
  const plan = settings && typeof scene !== 'string' ? planned(scene, settings) : null;
  const isPlan = plan !== null && typeof plan !== 'string';
  const called =
    typeof scene !== 'string' && settings && plan && typeof plan !== 'string'
      ? `${fileNameOf(delivery.file, nameFacts({ project: doc, scene, delivery, plan, version: each ? (rows[0] ?? null) : null, take: 1, time: new Date() }))}.${formatOf(settings.format).extension}`
      : '';
  return (
    <section aria-label={`Delivery ${delivery.name}`} className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1 flex-col gap-2.5 overflow-y-auto px-5 py-4">
        <Row label="Name">
          <TextLine label="Delivery name" value={delivery.name} most={LIMITS.name} onDone={(name) => set({ name })} />
          <IconButton
            label="Move up"
            disabled={at === 0}
            onClick={() => editor.edit(moveDelivery(delivery.id, at - 1))}
          >
            <ArrowUp size={14} />
          </IconButton>
          <IconButton
            label="Move down"
            disabled={at === doc.deliveries.length - 1}
            onClick={() => editor.edit(moveDelivery(delivery.id, at + 1))}
          >
            <ArrowDown size={14} />
          </IconButton>
          <IconButton label="Duplicate" onClick={copy}>
            <Copy size={14} />
          </IconButton>
          <IconButton
            label="Delete"
            onClick={() => {
              editor.edit(removeDelivery(delivery.id));
              onOpen(null);
            }}
          >
            <Trash2 size={14} />
          </IconButton>
        </Row>
        <div className="grid grid-cols-[128px_1fr] items-start gap-3">
          <span className="pt-1 text-ink-2">Shows</span>
          <Scenes delivery={delivery} set={set} />
        </div>
        {delivery.scenes.length > 1 && (
          <Row label="Cross-fade">
            <NumberField
              label="Cross-fade"
              className="w-24"
              value={delivery.fade}
              min={0}
              max={LIMITS.fade}
              decimals={0}
              onChange={(fade) => set({ fade: Math.round(fade) })}
            />
            <span className="text-ink-2">{delivery.fade === 0 ? 'frames; 0 is a cut' : 'frames'}</span>
          </Row>
        )}
        {rows.length > 0 && (
          <Row label="Versions">
            <CheckField
              label={`A file for each version (${rows.length})`}
              checked={delivery.everyVersion}
              onChange={(everyVersion) => set({ everyVersion })}
            />
          </Row>
        )}
        <Row label="File name">
          <TextLine label="File name" value={delivery.file} most={LIMITS.name} onDone={(file) => set({ file })} />
        </Row>
        <p className="-mt-1 pl-[140px] text-sm break-words text-ink-2">
          {strange.length > 0 ? (
            <span className="text-kite">
              There is no {strange.map((part) => `{${part}}`).join(', ')}: the parts are{' '}
              {NAME_PARTS.map((part) => `{${part}}`).join(', ')}.
            </span>
          ) : (
            called
          )}
        </p>
        {typeof scene === 'string' || !settings ? (
          <p className="rounded-md bg-paper-2 p-2.5 text-kite">{typeof scene === 'string' ? scene : ''}</p>
        ) : (
          <SettingsForm
            scene={scene}
            settings={settings}
            onChange={(next) => change(next, scene)}
            gesture={{ onStart: () => editor.begin(), onEnd: () => editor.end() }}
            playhead={scene.poster}
            range={null}
          />
        )}
      </div>
      {each && <Files state={state} rows={rows} />}
      {findings.length > 0 && (
        <details className="max-h-64 overflow-y-auto border-t border-line bg-sun-2 px-5 py-2">
          <summary className="cursor-pointer text-sun">{findings.length} to look at before it is rendered</summary>
          <FindingList findings={findings} />
        </details>
      )}
      <footer className="flex justify-end gap-2 border-t border-line px-5 py-2.5">
        {stale === 0 && state.every(({ standing }) => standing?.last) && (
          <span className="mr-auto self-center text-sm text-ink-2">Nothing changed since it was last rendered.</span>
        )}
        {stale > 0 && stale < state.length && (
          <Button disabled={!isPlan} onClick={() => onRender({ stale: true })}>
            Render what is out of date ({stale})
          </Button>
        )}
        <Button look="primary" disabled={!isPlan} onClick={() => onRender({})}>
          {state.length > 1 ? `Render all ${state.length}` : 'Render this one'}
        </Button>
      </footer>
    </section>
  );
};
