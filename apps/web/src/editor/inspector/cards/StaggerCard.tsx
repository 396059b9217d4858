import { choiceAt, type KeyChoice, moveKeys, reachOf } from '@kite/core/edits/keyframes';
import { together } from '@kite/core/document/patches';
import type { Id, Point } from '@kite/core/document/types';
import { slideLayers } from '@kite/core/edits/timing';
import { type Stagger, type StaggerOrder, staggerOffsets } from '@kite/core/motion/stagger';
import { layerBoxInScene } from '@kite/core/scene/bounds';
import { ChevronsRight } from 'lucide-react';
import { useRef, useState } from 'react';
import { Button } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';
import { Select } from '../../../ui/Select';
import { makeCopies } from '../../commands/clipboard';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';
import { Card } from './Card';
import { NAME_AND_FIELD } from '../row';

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

/** One of the things that come one after another: a layer, or the chosen keyframes of one. */
interface Unit {
  readonly layer: Id;
  /** Its first frame. */
  readonly from: number;
  readonly place: Point;
  /** The keyframes that are shifted; null for the whole layer. */
  readonly keys: readonly KeyChoice[] | null;
}

const placeOf = (editor: Editor, id: Id): Point => {
  const box = layerBoxInScene(editor.program, id, editor.state.frame);
  return box ? [box.left + box.right, box.top + box.bottom] : [0, 0];
};

/** The chosen keyframes layer by layer, or property by property where they are all one layer's. */
const keyUnits = (editor: Editor, keys: readonly KeyChoice[]): Unit[] => {
  const layers = editor.scene.order.filter((id) => keys.some((k) => k.ref.layer === id));
  const groups =
    layers.length > 1 ? layers.map((id) => keys.filter((k) => k.ref.layer === id)) : keys.map((choice) => [choice]);
  return groups.map((group) => {
    const layer = group[0]?.ref.layer ?? '';
    return { layer, keys: group, from: reachOf(group)[0], place: placeOf(editor, layer) };
  });
};

const layerUnits = (editor: Editor, ids: readonly Id[]): Unit[] =>
  editor.scene.order.flatMap((id): Unit[] => {
    const layer = editor.scene.layers[id];
    if (!layer || layer.locked || !ids.includes(id)) return [];
    return [{ layer: id, from: layer.from, place: placeOf(editor, id), keys: null }];
  });

const unitsOf = (editor: Editor, ids: readonly Id[]): Unit[] => {
  const byKeys = keyUnits(editor, editor.state.selection.keys);
  return byKeys.length > 1 ? byKeys : layerUnits(editor, ids);
};

/** Shifts things so that they start one after another, from where the first of them starts. */
const staggered = (editor: Editor, units: readonly Unit[], stagger: Stagger): void => {
  const first = Math.min(...units.map((u) => u.from));
  const offsets = staggerOffsets(
    units.map((u) => u.place),
    stagger,
  );
  const ways = units.map(({ from }, i) => first + (offsets[i] ?? 0) - from);
  const edits = units.map(({ layer, keys }, i) =>
    keys ? moveKeys(keys, ways[i] ?? 0) : slideLayers(editor.scene.id, [layer], ways[i] ?? 0),
  );
  editor.edit(together('Stagger', edits));
  if (units.some((u) => u.keys)) {
    const keys = units.flatMap((u, i) => choiceAt(u.keys ?? [], (f) => f + (ways[i] ?? 0)));
    editor.select({ layers: editor.state.selection.layers, keys });
  }
};

/** Shown while layers are selected: their starts, or those of their chosen keyframes, a step apart. */
export const StaggerCard = ({ ids }: { ids: readonly Id[] }) => {
  const editor = useEditor();
  const keys = useSlice((s) => s.selection.keys);
  const [stagger, setStagger] = useState<Stagger>({ step: 0, order: 'list', gaps: 'even', seed: 1 });
  const [copies, setCopies] = useState(5);
  const held = useRef<readonly Unit[] | null>(null);
  const count = Math.max(keyUnits(editor, keys).length, ids.length);
  const byKeys = keyUnits(editor, keys).length > 1;
  const set = (part: Partial<Stagger>) => {
    const next = { ...stagger, ...part };
    setStagger(next);
    // While a field is dragged each move starts from the things as they were.
    const units = held.current ?? unitsOf(editor, ids);
    if (units.length > 1) staggered(editor, units, next);
  };
  const gesture = {
    onStart: () => {
      held.current = unitsOf(editor, ids);
      editor.begin();
    },
    onEnd: () => {
      held.current = null;
      editor.end();
    },
  };
  return (
    <Card
      title="Stagger"
      icon={<ChevronsRight size={15} />}
      aside={byKeys ? `keyframes of ${count}` : `${count} layer${count === 1 ? '' : 's'}`}
    >
      <label className={NAME_AND_FIELD}>
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
      {count > 1 && (
        <>
          <label className={NAME_AND_FIELD}>
            <span className="text-ink-2">Order</span>
            <Select
              value={stagger.order}
              options={ORDERS}
              onChange={(order) => set({ order: order as StaggerOrder })}
            />
          </label>
          <div className={NAME_AND_FIELD}>
            <span className="text-ink-2">Gaps</span>
            <Select
              aria-label="Gaps"
              value={stagger.gaps}
              options={GAPS}
              onChange={(gaps) => set({ gaps: gaps as Stagger['gaps'] })}
            />
          </div>
        </>
      )}
      {count > 1 && stagger.order === 'random' && (
        <label className={NAME_AND_FIELD}>
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
      {!byKeys && (
        <div className={NAME_AND_FIELD}>
          <NumberField
            label="Copies to make"
            unit="×"
            min={1}
            max={200}
            decimals={0}
            value={copies}
            onChange={(n) => setCopies(Math.round(n))}
          />
          <Button
            className="!h-[26px] !px-2 text-sm"
            title="Copies of the selected layers, each a step later than the one before"
            onClick={() => makeCopies(editor, ids, copies, stagger.step)}
          >
            Make copies
          </Button>
        </div>
      )}
    </Card>
  );
};
