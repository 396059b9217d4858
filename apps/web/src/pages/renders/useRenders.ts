import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { ask } from '../../api/client';

const KEY = ['renders'];

/** All renders, kept up to date by the server's events. */
export const useRenders = () => {
  const queries = useQueryClient();
  const query = useQuery({ queryKey: KEY, queryFn: () => ask(RENDERS.list) });
  useEffect(() => {
    const events = new EventSource(urlOf(RENDERS.events, {}));
    const put = (change: (list: Render[]) => Render[]) =>
      queries.setQueryData<Render[]>(KEY, (list) => (list ? change(list) : list));
    events.onmessage = ({ data }: MessageEvent<string>) => {
      const render = JSON.parse(data) as Render;
      put((list) =>
        list.some((r) => r.id === render.id) ? list.map((r) => (r.id === render.id ? render : r)) : [render, ...list],
      );
    };
    events.addEventListener('removed', ({ data }: MessageEvent<string>) => {
      const { id } = JSON.parse(data) as { id: string };
      put((list) => list.filter((r) => r.id !== id));
    });
    // What happened while the connection was down was not told.
    events.onopen = () => void queries.invalidateQueries({ queryKey: KEY });
    return () => events.close();
  }, [queries]);
  return query;
};
