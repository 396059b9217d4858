import { tenths } from '@kite/core/document/fitting';
import { BRUSH_LIMITS } from '@kite/core/document/limits';
import type { BrushStroke } from '@kite/core/document/types';
import { Lasso } from 'lucide-react';
import type { ReactNode } from 'react';
import { alike } from '../../../ui/alike';
import { Button } from '../../../ui/Button';
import { ColorField } from '../../../ui/ColorField';
import { SeveralNumbers } from '../../../ui/SeveralNumbers';
import { TipMenu } from '../../canvas/tools/TipMenu';
import { useEditor, useSlice } from '../../store/context';
import { withTool } from '../../store/workspace';
import { SELECTING } from '../../store/workspace';

const NUMBERS = [
  { key: 'size', label: 'Size', unit: 'px', by: 1, limits: BRUSH_LIMITS.size },
  { key: 'thins', label: 'Pressure', unit: '%', by: 100, limits: BRUSH_LIMITS.thins },
  { key: 'taper', label: 'Taper', unit: '%', by: 100, limits: BRUSH_LIMITS.taper },
  { key: 'opacity', label: 'Opacity', unit: '%', by: 100, limits: BRUSH_LIMITS.opacity },
] as const;

const Row = ({ name, children }: { name: string; children: ReactNode }) => (
  <div className="grid grid-cols-[72px_1fr] items-center gap-2">
    <span className="text-ink-2">{name}</span>
    {children}
  </div>
);

interface StrokesFieldProps {
  value: readonly BrushStroke[];
  onChange: (strokes: readonly BrushStroke[]) => void;
  onStart: () => void;
  onEnd: () => void;
}

/** The strokes of a card, all at once: their brush can be another after they are drawn. */
export const StrokesField = ({ value, onChange, ...gesture }: StrokesFieldProps) => {
  const editor = useEditor();
  const lassoing = useSlice((s) => s.mode.kind === 'lassoing');
  const drawn = value.filter(({ erases }) => !erases);
  const set = (part: Partial<BrushStroke>) => onChange(value.map((stroke) => ({ ...stroke, ...part })));
  if (value.length === 0) {
    return (
      <p className="flex items-center gap-2 text-sm text-ink-2">
        Nothing is drawn yet.
        <Button className="!h-[26px]" onClick={() => editor.set({ mode: withTool('brush') })}>
          Take the brush
        </Button>
      </p>
    );
  }
  return (
    <div className="flex flex-col gap-1.5">
      {drawn.length > 0 && (
        <Row name="Colour">
          <ColorField
            label="Colour of all strokes"
            value={alike(drawn.map(({ color }) => color))}
            onChange={(color) => onChange(value.map((stroke) => (stroke.erases ? stroke : { ...stroke, color })))}
            {...gesture}
          />
        </Row>
      )}
      <Row name="Tip">
        <TipMenu
          label="Tip of all strokes"
          value={alike(value.map(({ tip }) => tip))}
          onChange={(tip) => set({ tip })}
        />
      </Row>
      {NUMBERS.map(({ key, label, unit, by, limits: [least, most] }) => (
        <Row key={key} name={label}>
          <SeveralNumbers
            label={`${label} of all strokes`}
            unit={unit}
            values={value.map((stroke) => tenths((stroke[key] ?? 1) * by))}
            min={least * by}
            max={most * by}
            onChange={(each) => onChange(value.map((stroke, i) => ({ ...stroke, [key]: (each[i] as number) / by })))}
            {...gesture}
          />
        </Row>
      ))}
      <Button
        icon={<Lasso size={14} />}
        aria-pressed={lassoing}
        className={lassoing ? '!bg-sky-2 text-sky' : ''}
        onClick={() => editor.set({ mode: lassoing ? SELECTING : { kind: 'lassoing' } })}
      >
        Take some of {value.length}
      </Button>
    </div>
  );
};
