import { PROJECTS } from '@kite/api/projects';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { sayWrong } from '../../ui/says';

/** Projects that were deleted, and can be brought back. */
export const RemovedDialog = ({ onClose }: { onClose: () => void }) => {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['projects', 'removed'], queryFn: () => ask(PROJECTS.removed) });
  const restore = useMutation({
    mutationFn: (id: string) => ask(PROJECTS.restore, { id }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['projects'] }),
    onError: sayWrong,
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title="Deleted projects"
      about="They are kept for 30 days, with all that was in them."
    >
      {error && <p className="text-kite">{error.message}</p>}
      {data?.length === 0 && <p className="text-ink-2">None was deleted in the last 30 days.</p>}
      <ul>
        {data?.map(({ id, name, scenes, updatedAt }) => (
          <li key={id} className="flex items-center gap-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              <span className="block truncate font-medium">{name}</span>
              <span className="text-sm text-ink-2">
                {scenes} scene{scenes === 1 ? '' : 's'} · deleted {new Date(updatedAt).toLocaleDateString()}
              </span>
            </span>
            <Button disabled={restore.isPending} onClick={() => restore.mutate(id)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
};
