import { nextColor } from '@kite/core/document/colors';
import type { PropertyRef } from '@kite/core/document/types';
import { flash, flashFrames } from '@kite/core/edits/keyframes';
import { Plus, Zap } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../../ui/Button';
import { ColorField } from '../../../ui/ColorField';
import { NumberField } from '../../../ui/NumberField';
import { useEditor, useSlice } from '../../store/context';

const MOST = 6;

/** Colours in turn, each held for some frames: over the play range, or over the selected keyframes. */
export const FlashFields = ({ refTo, reach }: { refTo: PropertyRef; reach: readonly [number, number] }) => {
  const editor = useEditor();
  const { range, length, swatches } = useSlice((s) => ({
    range: s.range,
    length: s.doc.scenes[s.sceneId]?.length ?? 1,
    swatches: s.doc.swatches,
  }));
  const [colors, setColors] = useState<readonly string[]>(['#FFFFFF', '#000000']);
  const [frames, setFrames] = useState(3);
  const [from, to] = range ?? (reach[0] < reach[1] ? reach : [reach[0], length - 1]);
  return (
    <div className="flex flex-col gap-1.5 border-t border-line pt-2">
      <span className="flex flex-wrap items-center gap-1">
        {colors.map((color, i) => (
          <span key={i} className="w-[122px]">
            <ColorField
              label={`Flash colour ${i + 1}`}
              value={color}
              onChange={(next) => setColors(colors.map((c, n) => (n === i ? next : c)))}
            />
          </span>
        ))}
        <IconButton
          label="One colour more"
          size="small"
          disabled={colors.length >= MOST}
          onClick={() => setColors([...colors, nextColor(swatches, colors.length)])}
        >
          <Plus size={13} />
        </IconButton>
      </span>
      <span className="flex items-center gap-2">
        <NumberField
          label="Frames of each colour"
          unit="f"
          min={1}
          max={1_000}
          decimals={0}
          value={frames}
          className="w-16"
          onChange={(n) => setFrames(Math.round(n))}
        />
        <Button
          className="!h-[26px] flex-1 !px-2 text-sm"
          icon={<Zap size={13} />}
          onClick={() => {
            if (!editor.edit(flash(refTo, colors, frames, from, to))) return;
            const made = { ref: refTo, frames: flashFrames(frames, from, to) };
            editor.select({ layers: [refTo.layer], card: refTo.item ?? null, keys: [made] });
          }}
        >
          Flash, frames {from} to {to}
        </Button>
      </span>
    </div>
  );
};
