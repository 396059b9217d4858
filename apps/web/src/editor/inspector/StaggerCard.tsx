import { together } from '@kite/core/document/patches';
import type { Id, Point } from '@kite/core/document/types';
import { slideLayers } from '@kite/core/edits/timing';
import { type Stagger, type StaggerOrder, staggerOffsets } from '@kite/core/motion/stagger';
import { layerBoxInScene } from '@kite/core/scene/bounds';
import { ChevronsRight } from 'lucide-react';
import { useRef, useState } from 'react';
import { NumberField } from '../../ui/NumberField';
import { Select } from '../../ui/Select';
import { useEditor } from '../store/context';
import type { Editor } from '../store/editor';
import { Card } from './Card';

const ORDERS: readonly { readonly value: StaggerOrder; readonly label: string }[] = [
  { value: 'list', label: 'As listed' },
  { value: 'reversed', label: 'The other way round' },
  { value: 'centre', label: 'From the centre' },
  { value: 'edges', label: 'From the edges' },
  { value: 'across', label: 'Left to right' },
  { value: 'down', label: 'Top to bottom' },
  { value: 'random', label: 'At random' },
];
const GAPS = [
  { value: 'even', label: 'Even' },
  { value: 'growing', label: 'Growing' },
  { value: 'shrinking', label: 'Shrinking' },
] as const;

/** A layer as a stagger finds it. */
interface Found {
  readonly id: Id;
  readonly from: number;
  readonly place: Point;
}

const find = (editor: Editor, ids: readonly Id[]): Found[] => {
  const { scene, program } = editor;
  return scene.order.flatMap((id): Found[] => {
    const layer = scene.layers[id];
    if (!layer || layer.locked || !ids.includes(id)) return [];
    const box = layerBoxInScene(program, id, editor.state.frame);
    return [{ id, from: layer.from, place: box ? [box.left + box.right, box.top + box.bottom] : [0, 0] }];
  });
};

/** Slides layers so that they start one after another, from where the first of them starts. */
const staggered = (editor: Editor, found: readonly Found[], stagger: Stagger): void => {
  const first = Math.min(...found.map((l) => l.from));
  const offsets = staggerOffsets(
    found.map((l) => l.place),
    stagger,
  );
  const edits = found.map(({ id, from }, i) => slideLayers(editor.scene.id, [id], first + (offsets[i] ?? 0) - from));
  editor.edit(together('Stagger', edits));
};

/** Shown while several layers are selected: their starts, a step apart. */
export const StaggerCard = ({ ids }: { ids: readonly Id[] }) => {
  const editor = useEditor();
  const [stagger, setStagger] = useState<Stagger>({ step: 0, order: 'list', gaps: 'even', seed: 1 });
  const held = useRef<readonly Found[] | null>(null);
  const set = (part: Partial<Stagger>) => {
    const next = { ...stagger, ...part };
    setStagger(next);
    // While a field is dragged each move starts from the layers as they were.
    staggered(editor, held.current ?? find(editor, ids), next);
  };
  const row = 'grid grid-cols-[88px_1fr] items-center gap-2';
  const gesture = {
    onStart: () => {
      held.current = find(editor, ids);
      editor.begin();
    },
    onEnd: () => {
      held.current = null;
      editor.end();
    },
  };
  return (
    <Card title="Stagger" icon={<ChevronsRight size={15} />} aside={`${ids.length} layers`}>
      <label className={row}>
        <span className="text-ink-2">Step</span>
        <NumberField
          label="Stagger step"
          unit="f"
          min={-1_000}
          max={1_000}
          step={0.1}
          value={stagger.step}
          onChange={(step) => set({ step })}
          {...gesture}
        />
      </label>
      <label className={row}>
        <span className="text-ink-2">Order</span>
        <Select value={stagger.order} options={ORDERS} onChange={(order) => set({ order: order as StaggerOrder })} />
      </label>
      <div className={row}>
        <span className="text-ink-2">Gaps</span>
        <Select
          aria-label="Gaps"
          value={stagger.gaps}
          options={GAPS}
          onChange={(gaps) => set({ gaps: gaps as Stagger['gaps'] })}
        />
      </div>
      {stagger.order === 'random' && (
        <label className={row}>
          <span className="text-ink-2">Seed</span>
          <NumberField
            label="Stagger seed"
            min={0}
            max={100_000}
            decimals={0}
            value={stagger.seed}
            onChange={(seed) => set({ seed: Math.round(seed) })}
            {...gesture}
          />
        </label>
      )}
    </Card>
  );
};
