import { RENDERS, type Delivered, type Render } from '@kite/api/renders';
import type { Id } from '@kite/core/document/types';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { ask } from '../../api/client';
import { useRenders } from '../../pages/renders/useRenders';
import { useSlice } from '../store/context';

/** A file of a delivery: the only one, or that of a version. */
export interface FileState {
  /** As the server has it; undefined until it is known, and while edits are on their way there. */
  readonly standing: Delivered | undefined;
  /** What was asked for last, however far it is. */
  readonly latest: Render | undefined;
}

/** All of its files, one at least. */
export type DeliveryState = readonly FileState[];

/** Whether a file has to be made again, or for the first time. */
export const isStale = ({ standing }: FileState): boolean => standing?.current === false;

/** One line on how a file stands, and its tone. */
export const sayingOf = ({ standing, latest }: FileState): readonly [text: string, tone: string] => {
  if (standing?.problem) return [standing.problem, 'text-kite'];
  if (latest?.status === 'queued') return ['Waiting', 'text-ink-2'];
  if (latest?.status === 'running') return [`Frame ${latest.done} of ${latest.total}`, 'text-ink-2'];
  if (latest?.status === 'failed') return [`Failed. ${latest.error ?? ''}`, 'text-kite'];
  if (!standing) return ['', 'text-ink-2'];
  if (!standing.last) return ['Never rendered', 'text-ink-2'];
  return standing.current ? ['Up to date', 'text-tail'] : ['Out of date', 'text-sun'];
};

/** How the deliveries of the open project stand, and what was last asked for at once. */
export const useDelivered = () => {
  const queries = useQueryClient();
  const { doc, saved } = useSlice((s) => ({ doc: s.doc, saved: s.saving.kind === 'saved' }));
  const renders = useRenders().data?.filter((r) => r.projectId === doc.id) ?? [];
  // Another answer for every edit that has arrived, and for every render that has ended.
  const ended = renders.filter((r) => r.status === 'done').length;
  const { data } = useQuery({
    queryKey: ['delivered', doc.id, doc, ended],
    queryFn: () => ask(RENDERS.delivered, { id: doc.id }),
    enabled: saved,
    // Objects are told apart by themselves: documents are as large as they are.
    queryKeyHashFn: ([, id, , count]) => `delivered-${String(id)}-${stampOf(doc)}-${String(count)}`,
  });
  // Checks ask what the last files weigh.
  useEffect(() => {
    if (data) queries.setQueryData(['delivered', doc.id], data);
  }, [queries, doc.id, data]);
  const stateOf = (id: Id): DeliveryState => {
    const files = data?.filter(({ delivery }) => delivery === id) ?? [];
    if (files.length === 0) return [{ standing: undefined, latest: renders.find((r) => r.delivery === id) }];
    return files.map((standing) => ({
      standing,
      latest: renders.find(({ delivery, version }) => delivery === id && version === standing.version),
    }));
  };
  const batch = renders.find((r) => r.batch !== null)?.batch ?? null;
  return { stateOf, batch: renders.filter((r) => batch !== null && r.batch === batch) };
};

let next = 0;
const stamps = new WeakMap<object, number>();
/** A number of an object's own. */
const stampOf = (object: object): number => {
  const stamp = stamps.get(object) ?? next++;
  stamps.set(object, stamp);
  return stamp;
};
