import { type Cutting, SELECTING } from '../../store/workspace';
import type { ComponentProps } from 'react';
import { isUncut, UNCUT } from '@kite/core/document/params';
import type { CutOut } from '@kite/core/document/types';
import { Eraser, Paintbrush, Scissors, Undo2 } from 'lucide-react';
import { Button } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';
import { useEditor, useSlice } from '../../store/context';
import { NAME_AND_FIELD } from '../row';

const EDGES = [
  { key: 'grow', label: 'Grow edge', min: -200 },
  { key: 'soften', label: 'Soften', min: 0 },
] as const;
const BRUSHES = [
  { how: 'keep', label: 'Bring back', icon: <Paintbrush size={14} /> },
  { how: 'take', label: 'Take away', icon: <Eraser size={14} /> },
] as const;

/** A number and its name beside it. */
const Row = ({ name, ...field }: { name?: string } & ComponentProps<typeof NumberField>) => (
  <label className={NAME_AND_FIELD}>
    <span className="text-ink-2">{name ?? field.label}</span>
    <NumberField {...field} />
  </label>
);

interface CutoutFieldProps {
  value: CutOut;
  onChange: (cut: CutOut) => void;
  onStart: () => void;
  onEnd: () => void;
}

/** What is cut out of a picture: by clicks on its background, by its edge, and by brushes. */
export const CutoutField = ({ value: cut, onChange: write, ...gesture }: CutoutFieldProps) => {
  const editor = useEditor();
  const cutting = useSlice((s) => (s.mode.kind === 'cutting' ? s.mode : null));
  const last = cut.seeds.at(-1);
  const take = (how: Cutting['how']) =>
    editor.set({ mode: cutting?.how === how ? SELECTING : { kind: 'cutting', how, size: cutting?.size ?? 40 } });
  return (
    <>
      <div className="flex gap-1">
        <Button
          className={`flex-1 ${cutting?.how === 'background' ? '!bg-sky-2 text-sky' : ''}`}
          aria-pressed={cutting?.how === 'background'}
          icon={<Scissors size={14} />}
          onClick={() => take('background')}
        >
          Cut out a background
        </Button>
      </div>
      {cutting?.how === 'background' && (
        <p className="text-sm text-ink-2">
          Click the background on the canvas; drag sideways from there for the tolerance.
        </p>
      )}
      {!isUncut(cut) && (
        <>
          {last && (
            <Row
              label="Tolerance"
              unit="%"
              min={0}
              max={100}
              step={0.25}
              value={Math.round(last.tolerance * 1000) / 10}
              onChange={(v) => write({ ...cut, seeds: [...cut.seeds.slice(0, -1), { ...last, tolerance: v / 100 }] })}
              {...gesture}
            />
          )}
          {EDGES.map(({ key, label, min }) => (
            <Row
              key={key}
              label={label}
              unit="px"
              min={min}
              max={200}
              step={0.25}
              decimals={0}
              value={cut[key]}
              onChange={(v) => write({ ...cut, [key]: Math.round(v) })}
              {...gesture}
            />
          ))}
          <div className="grid grid-cols-2 gap-1">
            {BRUSHES.map(({ how, label, icon }) => (
              <Button
                key={how}
                className={cutting?.how === how ? '!bg-sky-2 text-sky' : ''}
                aria-pressed={cutting?.how === how}
                icon={icon}
                onClick={() => take(how)}
              >
                {label}
              </Button>
            ))}
          </div>
          {(cutting?.how === 'keep' || cutting?.how === 'take') && (
            <Row
              name="Brush"
              label="Brush size"
              unit="px"
              min={1}
              max={2000}
              value={cutting.size}
              onChange={(size) => editor.set({ mode: { ...cutting, size: Math.round(size) } })}
            />
          )}
          <div className="flex gap-1">
            <Button
              className="flex-1"
              disabled={cut.seeds.length + cut.strokes.length === 0}
              icon={<Undo2 size={14} />}
              onClick={() => {
                write(UNCUT);
                editor.set({ mode: SELECTING });
              }}
            >
              Show the whole picture
            </Button>
          </div>
        </>
      )}
    </>
  );
};
