import { LIMITS } from '@kite/core/document/limits';
import { NEST } from '@kite/core/document/nest';
import type { Param } from '@kite/core/document/params';
import type { NestLayer } from '@kite/core/document/types';
import { setNest, wouldRecurse } from '@kite/core/edits/nests';
import { samplerOf } from '@kite/core/motion/sampler';
import { Clapperboard } from 'lucide-react';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { Select } from '../../ui/Select';
import { openNest, playInNest } from '../nesting';
import { useEditor, useSlice } from '../store/context';
import { Card } from './Card';
import { ParamField } from './ParamField';

const row = 'grid grid-cols-[88px_1fr] items-center gap-2';

/** The scene that a nest plays, and how: how fast, how often, which way, or by keyframes. */
export const NestCard = ({ layer }: { layer: NestLayer }) => {
  const editor = useEditor();
  const { doc, sceneId, frame } = useSlice((s) => ({ doc: s.doc, sceneId: s.sceneId, frame: s.frame }));
  const inner = doc.scenes[layer.scene];
  const plays = samplerOf(NEST.play, layer.params.play).at(frame) as string;
  const shown = Object.entries<Param>(NEST).filter(([, { when }]) => !when || when.slice(1).includes(plays));
  const fits = doc.order.filter((id) => id === layer.scene || !wouldRecurse(doc, id, sceneId));
  return (
    <Card
      title="Nest"
      icon={<Clapperboard size={15} />}
      aside={inner ? `${inner.width} × ${inner.height}, ${inner.length} frames` : 'missing'}
    >
      <label className={row}>
        <span className="text-ink-2">Scene</span>
        <Select
          value={layer.scene}
          options={fits.map((id) => ({ value: id, label: doc.scenes[id]?.name ?? id }))}
          onChange={(id) => playInNest(editor, layer.id, id)}
        />
      </label>
      {shown.map(([key, param]) => (
        <ParamField key={key} param={param} refs={[{ scene: sceneId, layer: layer.id, key }]} />
      ))}
      {plays !== 'freeze' && plays !== 'keyed' && (
        <label className={row}>
          <span className="text-ink-2">Begins at</span>
          <NumberField
            label="Frame at which the nested scene begins"
            unit="f"
            decimals={0}
            min={-LIMITS.frame}
            max={LIMITS.frame}
            value={layer.start}
            onChange={(v) => editor.edit(setNest(sceneId, layer.id, { start: Math.round(v) }))}
            onStart={() => editor.begin()}
            onEnd={() => editor.end()}
          />
        </label>
      )}
      <Button className="!h-[26px]" onClick={() => openNest(editor, layer.id)}>
        Open this scene
      </Button>
    </Card>
  );
};
