import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { ask } from '../../api/client';
import { followed } from '../../api/followed';

export const RENDERS_KEY = ['renders'];
const list = followed<Render>(() => ask(RENDERS.list));

/** All renders, kept up to date by the server's events. */
export const useRenders = () => {
  const queries = useQueryClient();
  const query = useQuery({ queryKey: RENDERS_KEY, queryFn: list.ask });
  useEffect(() => {
    const events = new EventSource(urlOf(RENDERS.events, {}));
    const put = (change: (renders: readonly Render[]) => readonly Render[]) => {
      list.tell(change);
      queries.setQueryData<readonly Render[]>(RENDERS_KEY, (renders) => (renders ? change(renders) : renders));
    };
    events.onmessage = ({ data }: MessageEvent<string>) => {
      const render = JSON.parse(data) as Render;
      put((renders) => {
        if (renders.some((r) => r.id === render.id)) return renders.map((r) => (r.id === render.id ? render : r));
        // One that is brought back goes where it was.
        return [...renders, render].sort((a, b) => b.createdAt.localeCompare(a.createdAt));
      });
    };
    events.addEventListener('removed', ({ data }: MessageEvent<string>) => {
      const { id } = JSON.parse(data) as { id: string };
      put((renders) => renders.filter((r) => r.id !== id));
    });
    // What happened while the connection was down was not told.
    events.onopen = () => void queries.invalidateQueries({ queryKey: RENDERS_KEY });
    return () => events.close();
  }, [queries]);
  return query;
};

/** What a render is called: by its delivery, or its scene, and by the version that it shows. */
export const titleOf = ({ deliveryName, sceneName, versionName }: Render): string =>
  [deliveryName ?? sceneName, ...(versionName === null ? [] : [versionName])].join(', ');
