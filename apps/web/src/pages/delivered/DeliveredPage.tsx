import { RENDERS } from '@kite/api/renders';
import { useEffect } from 'react';
import { Link, useParams } from 'react-router';
import { ask, deliveredUrl } from '../../api/client';
import { Button } from '../../ui/Button';
import { useRenders } from '../renders/useRenders';

/** Waits for a render and then gives way to what came of it. */
export const DeliveredPage = () => {
  const { render: id } = useParams();
  const { data: renders } = useRenders();
  const render = renders?.find((r) => r.id === id);
  const done = render?.status === 'done';
  useEffect(() => {
    if (render && done) window.location.replace(deliveredUrl(render));
  }, [render, done]);
  const share = render && render.total > 0 ? Math.round((render.done / render.total) * 100) : 0;
  const waits = render && (render.status === 'queued' || render.status === 'running');
  return (
    <main className="grid h-full place-items-center bg-paper">
      <div className="flex w-80 flex-col gap-3 text-center">
        {!renders && <p className="text-ink-2">Looking for the render …</p>}
        {renders && !render && <p>This render is gone. It may have been deleted.</p>}
        {waits && (
          <>
            <p>
              Rendering “{render.sceneName}” as it is delivered, {share} %
            </p>
            <progress aria-label="Progress" value={render.done} max={render.total} className="w-full" />
            <Button onClick={() => void ask(RENDERS.cancel, { id: render.id })}>Cancel</Button>
          </>
        )}
        {render?.status === 'cancelled' && <p>This render was cancelled.</p>}
        {render?.status === 'failed' && <p className="text-kite">{render.error ?? 'This render failed.'}</p>}
        {!waits && renders && (
          <Link to="/renders" className="text-sky underline">
            All renders
          </Link>
        )}
      </div>
    </main>
  );
};
