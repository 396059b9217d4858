import { LIMITS } from '@kite/core/check/rules';
import type { Layer } from '@kite/core/document/types';
import { setLayers } from '@kite/core/edits/layers';
import { Timer } from 'lucide-react';
import { memo } from 'react';
import { NumberField } from '../../ui/NumberField';
import { useEditor } from '../store/context';
import { Card } from './Card';

/** When a layer shows. */
export const TimeCard = memo(
  ({ layer }: { layer: Layer }) => {
    const editor = useEditor();
    const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
    const set = (fields: { from?: number; to?: number }) => editor.edit(setLayers(editor.scene.id, [layer.id], fields));
    return (
      <Card title="Time" icon={<Timer size={15} />} aside={`${layer.to - layer.from} frames`}>
        <div className="grid grid-cols-2 gap-2">
          <label className="flex flex-col gap-0.5 text-sm text-ink-2">
            First frame
            <NumberField
              label="First frame of the layer"
              value={layer.from}
              min={-LIMITS.frame}
              max={layer.to - 1}
              decimals={0}
              onChange={(v) => set({ from: Math.round(v) })}
              {...gesture}
            />
          </label>
          <label className="flex flex-col gap-0.5 text-sm text-ink-2">
            Last frame
            <NumberField
              label="Last frame of the layer"
              value={layer.to - 1}
              min={layer.from}
              max={LIMITS.frame - 1}
              decimals={0}
              onChange={(v) => set({ to: Math.round(v) + 1 })}
              {...gesture}
            />
          </label>
        </div>
      </Card>
    );
  },
  (a, b) => a.layer.id === b.layer.id && a.layer.from === b.layer.from && a.layer.to === b.layer.to,
);
TimeCard.displayName = 'TimeCard';
