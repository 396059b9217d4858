import { HISTORY } from '@kite/api/history';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { useEditor, useSlice } from '../store/context';
import { dayName } from './days';
import { bringSceneBack } from './states';

/** Scenes that were deleted and are kept for a while. */
export const RemovedScenes = () => {
  const editor = useEditor();
  const { project, scenes, saved } = useSlice((s) => ({
    project: s.doc.id,
    scenes: s.doc.order.join(),
    saved: s.saving.kind === 'saved',
  }));
  const [now] = useState(() => Date.now());
  const { data = [] } = useQuery({
    queryKey: ['removed scenes', project, scenes, saved],
    queryFn: () => ask(HISTORY.removedScenes, { id: project }),
    placeholderData: (before) => before,
  });
  if (data.length === 0) return null;
  return (
    <section aria-label="Deleted scenes" className="mt-3 border-t border-line pt-2">
      <h3 className="text-sm font-semibold">Deleted scenes</h3>
      <p className="mb-1 text-xs text-ink-2">They are kept for 30 days.</p>
      <ul>
        {data.map(({ id, name, at }) => (
          <li key={id} className="flex items-center gap-2 py-0.5">
            <span className="min-w-0 flex-1">
              <span className="block truncate">{name}</span>
              <span className="block text-xs text-ink-2">{dayName(at, now)}</span>
            </span>
            <Button className="h-[26px]" onClick={() => void bringSceneBack(editor, id)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
};
