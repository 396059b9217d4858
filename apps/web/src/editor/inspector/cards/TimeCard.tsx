import { LIMITS } from '@kite/core/document/limits';
import type { Edit } from '@kite/core/document/patches';
import type { Layer } from '@kite/core/document/types';
import { setLayers } from '@kite/core/edits/layers';
import { slideLayers, stretchLayers } from '@kite/core/edits/timing';
import { ArrowRightToLine, ArrowLeftRight, Scissors, Timer } from 'lucide-react';
import { memo, useState } from 'react';
import { Button } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';
import { extendSelection, reverseSelection, splitAtPlayhead } from '../../commands/keying';
import { useEditor } from '../../store/context';
import { Card } from './Card';

const column = 'flex flex-col gap-0.5 text-sm text-ink-2';
const small = '!h-[26px] flex-1 !px-1.5 text-sm';
const ICON = 13;

/** First and last frame of one layer. */
const EndFields = ({ layer }: { layer: Layer }) => {
  const editor = useEditor();
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const set = (fields: { from?: number; to?: number }) => editor.edit(setLayers(editor.scene.id, [layer.id], fields));
  return (
    <>
      <label className={column}>
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
      <label className={column}>
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
    </>
  );
};

/** A field for a change: it starts from nothing each time, and shows what it is doing while it is dragged. */
const ChangeField = ({
  label,
  unit,
  rest,
  min,
  max,
  edit,
}: {
  label: string;
  unit: string;
  /** The value that changes nothing. */
  rest: number;
  min: number;
  max: number;
  edit: (value: number) => Edit;
}) => {
  const editor = useEditor();
  const [value, setValue] = useState(rest);
  return (
    <label className={column}>
      {label}
      <NumberField
        label={label}
        unit={unit}
        value={value}
        min={min}
        max={max}
        decimals={0}
        onChange={(v) => {
          setValue(v);
          editor.edit(edit(Math.round(v)));
        }}
        onStart={() => editor.begin()}
        onEnd={() => {
          editor.end();
          setValue(rest);
        }}
      />
    </label>
  );
};

/** When layers show, and what is done to their time: keyframes go along. */
export const TimeCard = memo(
  ({ layers }: { layers: readonly Layer[] }) => {
    const editor = useEditor();
    const scene = editor.scene.id;
    const ids = layers.filter((l) => !l.locked).map((l) => l.id);
    const only = layers.length === 1 ? layers[0] : undefined;
    return (
      <Card
        title="Time"
        icon={<Timer size={15} />}
        aside={only ? `${only.to - only.from} frames` : `${layers.length} layers`}
      >
        <div className="grid grid-cols-2 gap-2">
          {only && <EndFields layer={only} />}
          <ChangeField
            label="Shift by"
            unit="f"
            rest={0}
            min={-LIMITS.length}
            max={LIMITS.length}
            edit={(by) => slideLayers(scene, ids, by)}
          />
          <ChangeField
            label="Stretch to"
            unit="%"
            rest={100}
            min={1}
            max={2_000}
            edit={(percent) => stretchLayers(scene, ids, percent / 100)}
          />
        </div>
        <div className="flex gap-1">
          <Button
            className={small}
            icon={<Scissors size={ICON} />}
            title="Split at the playhead (/)"
            onClick={() => splitAtPlayhead(editor)}
          >
            Split
          </Button>
          <Button
            className={small}
            icon={<ArrowRightToLine size={ICON} />}
            title="Last to the scene’s end"
            onClick={() => extendSelection(editor)}
          >
            Extend
          </Button>
          <Button
            className={small}
            icon={<ArrowLeftRight size={ICON} />}
            title="The motion backwards"
            onClick={() => {
              editor.select({ layers: editor.state.selection.layers });
              reverseSelection(editor);
            }}
          >
            Reverse
          </Button>
        </div>
      </Card>
    );
  },
  (a, b) =>
    a.layers.length === b.layers.length &&
    a.layers.every((layer, i) => {
      const other = b.layers[i];
      return (
        layer.id === other?.id && layer.from === other.from && layer.to === other.to && layer.locked === other.locked
      );
    }),
);
TimeCard.displayName = 'TimeCard';
