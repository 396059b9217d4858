import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { newDelivery } from '@kite/core/delivery/kept';
import { uniqueName } from '@kite/core/document/make';
import type { Delivery, Id } from '@kite/core/document/types';
import { addDelivery } from '@kite/core/edits/deliveries';
import { useQueryClient } from '@tanstack/react-query';
import { Clapperboard, Download, Plus, Rows3 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { Button, buttonLook } from '../../ui/Button';
import { weight } from '../../ui/units';
import { PageBar } from '../header/PageBar';
import { useEditor, useSlice } from '../store/context';
import { prepareRender } from '../render/prepare';
import { makeId } from '../store/editor';
import { sceneOf } from '../store/state';
import { DeliveryCard } from './DeliveryCard';
import { DeliveryForm } from './DeliveryForm';
import { isStale, useDelivered } from './useDelivered';

const LINK = buttonLook('outline');

/** What was asked for at once: how far it is, and all of it as one file. */
const Batch = ({ rows }: { rows: readonly Render[] }) => {
  const done = rows.filter((r) => r.status === 'done');
  const first = rows[0];
  if (!first?.batch || rows.length < 2) return null;
  const bytes = done.reduce((sum, r) => sum + (r.result?.bytes ?? 0), 0);
  const open = rows.filter((r) => r.status === 'queued' || r.status === 'running').length;
  return (
    <footer role="status" className="flex items-center gap-3 border-t border-line px-4 py-2.5">
      <span className="min-w-0 flex-1 truncate">
        Asked for together: {done.length} of {rows.length} done{open === 0 && done.length > 0 && `, ${weight(bytes)}`}
      </span>
      {open === 0 && done.length > 0 && (
        <a href={urlOf(RENDERS.batch, { batch: first.batch })} className={LINK}>
          <Download size={14} /> All as one zip
        </a>
      )}
    </footer>
  );
};

/** What leaves the project: each file with its settings, rendered one, several or all at a press. */
export const DeliverPage = () => {
  const editor = useEditor();
  const queries = useQueryClient();
  const { doc, sceneId } = useSlice((s) => ({ doc: s.doc, sceneId: s.sceneId }));
  const { stateOf, batch } = useDelivered();
  const [asked, setAsked] = useSearchParams();
  const opened = asked.get('open');
  const setOpened = (id: Id | null) => setAsked(id === null ? {} : { open: id }, { replace: true });
  const [chosen, setChosen] = useState<ReadonlySet<Id>>(new Set());
  const [busy, setBusy] = useState(false);
  useEffect(prepareRender, []);
  const { deliveries } = doc;
  const open = deliveries.find((d) => d.id === opened) ?? deliveries[0];
  const picked = deliveries.filter((d) => chosen.has(d.id));
  const able = (list: readonly Delivery[]) =>
    list.filter(({ id }) => !stateOf(id).some(({ standing }) => standing?.problem));
  const wanted = able(picked.length > 0 ? picked : deliveries);
  const stale = able(deliveries).filter(({ id }) => stateOf(id).some(isStale));
  const staleFiles = stale.flatMap(({ id }) => stateOf(id).filter(isStale)).length;

  const render = async (ids: readonly Id[], only: { readonly stale?: boolean } = {}) => {
    setBusy(true);
    try {
      await editor.allSaved();
      await ask(RENDERS.deliver, { id: doc.id }, { deliveries: ids, ...only });
      await queries.invalidateQueries({ queryKey: ['renders'] });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  const add = () => {
    const scene = sceneOf(editor.state);
    const id = makeId();
    const taken = deliveries.map((d) => d.name);
    editor.edit(addDelivery(newDelivery(id, uniqueName(scene.name, taken), [scene.id], { format: 'mp4' })));
    setOpened(id);
  };
  return (
    <main data-area="deliveries" className="flex min-h-0 flex-1">
      <div className="flex min-w-0 flex-1 flex-col border-r border-line bg-paper">
        <PageBar title="Deliveries">
          <Link to={`/projects/${doc.id}/versions`} className={LINK}>
            <Rows3 size={15} /> Versions
          </Link>
          <Link to="/renders" className={LINK}>
            <Clapperboard size={15} /> All renders
          </Link>
          <Button icon={<Plus size={15} />} onClick={add}>
            New delivery
          </Button>
        </PageBar>
        {deliveries.length > 0 && (
          <div className="flex items-center gap-3 border-t border-line bg-paper-2 px-4 py-1.5">
            <label className="flex flex-1 items-center gap-3">
              <input
                type="checkbox"
                checked={picked.length === deliveries.length}
                onChange={(event) => setChosen(new Set(event.target.checked ? deliveries.map((d) => d.id) : []))}
              />
              {picked.length > 0 ? `${picked.length} chosen` : `${deliveries.length} in all`}
            </label>
            {stale.length > 0 && picked.length === 0 && (
              <Button
                className="!h-[26px]"
                disabled={busy}
                onClick={() =>
                  void render(
                    stale.map((d) => d.id),
                    { stale: true },
                  )
                }
              >
                Render what is out of date ({staleFiles})
              </Button>
            )}
            <Button
              look="primary"
              className="!h-[26px]"
              disabled={busy || wanted.length === 0}
              onClick={() => void render(wanted.map((d) => d.id))}
            >
              {picked.length > 0 ? `Render ${wanted.length} chosen` : 'Render all'}
            </Button>
          </div>
        )}
        <ul className="min-h-0 flex-1 overflow-y-auto border-t border-line">
          {deliveries.map((delivery) => (
            <DeliveryCard
              key={delivery.id}
              delivery={delivery}
              state={stateOf(delivery.id)}
              current={delivery.id === open?.id}
              chosen={chosen.has(delivery.id)}
              onOpen={() => setOpened(delivery.id)}
              onChoose={(on) => {
                const next = new Set(chosen);
                if (on) next.add(delivery.id);
                else next.delete(delivery.id);
                setChosen(next);
              }}
            />
          ))}
        </ul>
        <Batch rows={batch} />
      </div>
      <div className="flex w-[560px] shrink-0 flex-col bg-paper">
        {open ? (
          <DeliveryForm
            key={open.id}
            delivery={open}
            state={stateOf(open.id)}
            onOpen={setOpened}
            onRender={(only) => void render([open.id], only)}
          />
        ) : (
          <div className="m-auto flex max-w-80 flex-col items-center gap-3 text-center text-ink-2">
            <p>
              Nothing is delivered yet. A delivery keeps what leaves the project: scenes, format, size and the name of
              the file, to be rendered again by one press.
            </p>
            <Button look="primary" onClick={add}>
              Make a delivery of “{doc.scenes[sceneId]?.name}”
            </Button>
          </div>
        )}
      </div>
    </main>
  );
};
