import { BRUSH_LIMITS } from '@kite/core/document/limits';
import { ChevronLeft, ChevronRight, CopyPlus, Eraser, FilePlus2, ImageDown, Monitor } from 'lucide-react';
import { IconButton } from '../../../ui/Button';
import { ColorField } from '../../../ui/ColorField';
import { NumberField } from '../../../ui/NumberField';
import { celsNow } from '../../commands/cels';
import { CommandButton } from '../../commands/CommandButton';
import { useEditor, useSlice } from '../../store/context';
import type { Brush } from '../../store/workspace';
import { OwnTips } from './OwnTips';
import { TipMenu } from './TipMenu';

/** Shares of the brush, as percent. */
const SHARES = [
  {
    key: 'opacity',
    label: 'Opacity',
    most: BRUSH_LIMITS.opacity[1],
    title: 'How strongly a stroke is drawn, or takes away',
  },
  {
    key: 'thins',
    label: 'Pressure',
    most: BRUSH_LIMITS.thins[1],
    title: 'How much pressure, or speed, changes its width',
  },
  {
    key: 'taper',
    label: 'Taper',
    most: BRUSH_LIMITS.taper[1],
    title: 'The share of a stroke over which each of its ends comes to a point',
  },
  { key: 'smooth', label: 'Steady', most: 0.95, title: 'How far it lags behind the hand' },
] as const;

/** The brush in hand, and the cels it draws in. */
export const BrushBar = () => {
  const editor = useEditor();
  const { brush } = useSlice((s) => ({ brush: s.brush, doc: s.doc, selection: s.selection, frame: s.frame }));
  const set = (part: Partial<Brush>) => editor.set({ brush: { ...editor.state.brush, ...part } });
  const cels = celsNow(editor);
  return (
    <div
      role="toolbar"
      aria-label="Brush"
      className="absolute inset-x-2 top-2 mx-auto flex w-fit flex-wrap items-center gap-x-1.5 gap-y-1 rounded-md border border-line bg-paper px-2 py-1 shadow"
      onPointerDown={(event) => event.stopPropagation()}
    >
      <span className="w-8 overflow-hidden">
        <ColorField label="Brush colour" value={brush.color} onChange={(color) => set({ color })} />
      </span>
      <span className="w-14">
        <NumberField
          label="Brush size"
          unit="px"
          value={brush.size}
          min={BRUSH_LIMITS.size[0]}
          max={BRUSH_LIMITS.size[1]}
          onChange={(size) => set({ size })}
        />
      </span>
      <IconButton
        label="As large on the screen at any zoom"
        pressed={brush.onScreen}
        onClick={() => set({ onScreen: !brush.onScreen })}
      >
        <Monitor size={15} />
      </IconButton>
      <TipMenu label="Tip" value={brush.tip} onChange={(tip) => set({ tip })}>
        <OwnTips />
      </TipMenu>
      {SHARES.map(({ key, label, most, title }) => (
        <label key={key} title={title} className="flex items-center gap-1 text-sm text-ink-2">
          {label}
          <span className="w-14">
            <NumberField
              label={label}
              unit="%"
              value={Math.round(brush[key] * 100)}
              min={0}
              max={most * 100}
              decimals={0}
              onChange={(percent) => set({ [key]: percent / 100 })}
            />
          </span>
        </label>
      ))}
      <IconButton label="Erase" pressed={brush.erases} onClick={() => set({ erases: !brush.erases })}>
        <Eraser size={15} />
      </IconButton>
      {cels && (
        <span className="flex items-center gap-0.5 border-l border-line pl-2">
          <CommandButton command="celBefore">
            <ChevronLeft size={15} />
          </CommandButton>
          <CommandButton command="celAfter">
            <ChevronRight size={15} />
          </CommandButton>
          <CommandButton command="celEmpty" label="Empty cel">
            <FilePlus2 size={15} />
          </CommandButton>
          <CommandButton command="celOn" label="Go on">
            <CopyPlus size={15} />
          </CommandButton>
          <CommandButton command="celShown">
            <ImageDown size={15} />
          </CommandButton>
        </span>
      )}
    </div>
  );
};
