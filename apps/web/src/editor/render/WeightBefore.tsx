import { RENDERS } from '@kite/api/renders';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import type { Id } from '@kite/core/document/types';
import { useMutation } from '@tanstack/react-query';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { weight } from '../../ui/units';
import { Weights } from '../../ui/Weights';
import { useEditor } from '../store/context';

/** What a file would weigh, before it is rendered: a banner by part, a file of many frames nearly. */
export const WeightBefore = ({ scene, settings }: { scene: Id; settings: RenderSettings }) => {
  const editor = useEditor();
  const { mutate, data, error, isPending } = useMutation({
    mutationFn: async () => {
      await editor.allSaved();
      return ask(RENDERS.weigh, { project: editor.state.doc.id, scene, settings });
    },
  });
  const { budget = 0 } = settings as { readonly budget?: number };
  return (
    <div className="flex items-start gap-3">
      <Button className="!h-[26px]" disabled={isPending} onClick={() => mutate()}>
        {isPending ? 'Weighing …' : 'Weigh it'}
      </Button>
      <div className="min-w-0 flex-1" role="status">
        {data?.estimated && (
          <span>
            About <strong className="tabular font-medium">{weight(data.bytes)}</strong>, from some of its frames
          </span>
        )}
        {data && !data.estimated && <Weights parts={data.parts ?? []} bytes={data.bytes} budget={budget * 1024} />}
        {error && <span className="text-kite">{error.message}</span>}
      </div>
    </div>
  );
};
