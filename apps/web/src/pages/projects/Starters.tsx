import { urlOf } from '@kite/api/call';
import { STARTERS, type StarterCard } from '@kite/api/starters';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Moving } from '../../preview/Moving';

const BOX = { width: 176, height: 99 };

const Card = ({ starter, busy, onBegin }: { starter: StarterCard; busy: boolean; onBegin: () => void }) => {
  const [playing, setPlaying] = useState(false);
  return (
    <li className="shrink-0">
      <button
        type="button"
        aria-label={`Start from ${starter.name}`}
        disabled={busy}
        onClick={onBegin}
        onPointerEnter={() => setPlaying(true)}
        onPointerLeave={() => setPlaying(false)}
        onFocus={() => setPlaying(true)}
        onBlur={() => setPlaying(false)}
        className="block w-44 overflow-hidden rounded-md border border-line bg-paper text-left hover:border-ink-2"
      >
        <Moving
          poster={urlOf(STARTERS.poster, { id: starter.id })}
          queryKey={['starter', starter.id]}
          fetchDocument={() => ask(STARTERS.open, { id: starter.id })}
          box={BOX}
          playing={playing}
        />
        <span className="block px-2.5 pt-1.5 font-medium">{starter.name}</span>
        <span className="block h-[38px] px-2.5 pb-2 text-sm leading-tight text-ink-2">{starter.about}</span>
      </button>
    </li>
  );
};

/** What a project can start from: each is opened as a copy, with what is to be replaced beside it. */
export const Starters = () => {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: starters } = useQuery({
    queryKey: ['starters'],
    queryFn: () => ask(STARTERS.list),
    staleTime: Infinity,
  });
  const refresh = () => queries.invalidateQueries({ queryKey: ['projects'] });
  const onError = (error: Error) => toast.error(`${error.message} Nothing was made.`);
  const begin = useMutation({
    mutationFn: (id: string) => ask(STARTERS.begin, { id }),
    onSuccess: async ({ id }) => {
      await refresh();
      await navigate(`/projects/${id}`, { state: { drawer: 'replace' } });
    },
    onError,
  });
  const demo = useMutation({
    mutationFn: () => ask(STARTERS.demo),
    onSuccess: async ({ name }) => {
      await refresh();
      toast.success(`“${name}” is there.`);
    },
    onError,
  });
  if (!starters) return null;
  return (
    <section aria-label="Start from" className="mb-5">
      <div className="mb-2 flex items-center">
        <h2 className="mr-auto font-semibold">Start from</h2>
        <Button look="plain" disabled={demo.isPending} onClick={() => demo.mutate()}>
          Bring the demo back
        </Button>
      </div>
      <ul className="flex gap-3 overflow-x-auto pb-2">
        {starters.map((starter) => (
          <Card key={starter.id} starter={starter} busy={begin.isPending} onBegin={() => begin.mutate(starter.id)} />
        ))}
      </ul>
    </section>
  );
};
