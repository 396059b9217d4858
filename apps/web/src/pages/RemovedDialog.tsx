import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { sayWrong } from '../ui/says';

interface Removed {
  readonly id: string;
  readonly name: string;
  /** What else it is known by. */
  readonly about: string;
}

interface RemovedDialogProps {
  title: string;
  /** For how long they are kept. */
  about: string;
  /** Said where there is none. */
  none: string;
  /** Of the list that they come back to. */
  queryKey: readonly string[];
  list: () => Promise<readonly Removed[]>;
  restore: (id: string) => Promise<unknown>;
  /** Gives back the room that they take. Without it they go by themselves. */
  forget?: () => Promise<unknown>;
  onClose: () => void;
}

/** What was deleted, and can be brought back. */
export const RemovedDialog = ({ title, about, none, queryKey, list, restore, forget, onClose }: RemovedDialogProps) => {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: [...queryKey, 'removed'], queryFn: list });
  const again = { onSuccess: () => queries.invalidateQueries({ queryKey }), onError: sayWrong };
  const back = useMutation({ mutationFn: restore, ...again });
  const go = useMutation({ mutationFn: async () => forget?.(), ...again });
  return (
    <Dialog open onClose={onClose} title={title} about={about}>
      {error && <p className="text-kite">{error.message}</p>}
      {data?.length === 0 && <p className="text-ink-2">{none}</p>}
      <ul>
        {data?.map(({ id, name, about: known }) => (
          <li key={id} className="flex items-center gap-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              <span className="block truncate font-medium">{name}</span>
              <span className="block truncate text-sm text-ink-2">{known}</span>
            </span>
            <Button disabled={back.isPending} onClick={() => back.mutate(id)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
      {forget && data && data.length > 0 && (
        <Button look="danger" className="mt-3" disabled={go.isPending} onClick={() => go.mutate()}>
          Delete all of them for good
        </Button>
      )}
    </Dialog>
  );
};
