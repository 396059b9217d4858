import { MOST_STOPS } from '@kite/core/document/params';
import type { Gradient, GradientStop } from '@kite/core/document/types';
import { gradientAt } from '@kite/core/motion/gradients';
import { Plus, Trash2 } from 'lucide-react';
import { useContext } from 'react';
import { IconButton } from '../../../ui/Button';
import { ColorField } from '../../../ui/ColorField';
import { ColorToolsContext } from '../../../ui/colorTools';
import { NumberField } from '../../../ui/NumberField';

interface GradientFieldProps {
  value: Gradient;
  onStart: () => void;
  onChange: (value: Gradient) => void;
  onEnd: () => void;
}

const css = ({ stops }: Gradient) =>
  `linear-gradient(to right, ${stops.map((s) => `${s.color} ${s.at * 100}%`).join(', ')})`;

const inOrder = (stops: readonly GradientStop[]): Gradient => ({ stops: stops.toSorted((a, b) => a.at - b.at) });

export const GradientField = ({ value, onStart, onChange, onEnd }: GradientFieldProps) => {
  const { stops } = value;
  const tools = useContext(ColorToolsContext);
  const replace = (i: number, part: Partial<GradientStop>) =>
    onChange(inOrder(stops.map((s, k) => (k === i ? { ...s, ...part } : s))));
  /** Another colour, of its own or of a swatch. */
  const dye = (i: number, color: string, swatch?: string) =>
    onChange(
      inOrder(stops.map((s, k) => (k === i ? { at: s.at, color, ...(swatch !== undefined && { swatch }) } : s))),
    );
  const add = () => {
    const gaps = stops.slice(1).map((s, i) => s.at - (stops[i] as GradientStop).at);
    const widest = gaps.indexOf(Math.max(...gaps));
    const at = ((stops[widest] as GradientStop).at + (stops[widest + 1] as GradientStop).at) / 2;
    onChange(inOrder([...stops, { at, color: gradientAt(value, at) }]));
  };
  return (
    <div className="flex flex-col gap-1.5">
      <div className="h-5 rounded-md border border-line" style={{ background: css(value) }} />
      {stops.map((stop, i) => (
        <div key={i} className="flex items-center gap-1.5">
          <span className="min-w-0 flex-1">
            <ColorField
              label={`Stop ${i + 1} colour`}
              value={stop.color}
              onStart={onStart}
              onEnd={onEnd}
              onChange={(color) => dye(i, color)}
              link={{
                id: stop.swatch,
                take: (id) => {
                  const swatch = tools?.swatches.find((s) => s.id === id);
                  if (swatch) dye(i, swatch.color, id);
                },
                detach: () => dye(i, stop.color),
              }}
            />
          </span>
          <NumberField
            label={`Stop ${i + 1} place`}
            className="w-[72px]"
            value={stop.at * 100}
            min={i === 0 ? 0 : (stops[i - 1] as GradientStop).at * 100}
            max={i === stops.length - 1 ? 100 : (stops[i + 1] as GradientStop).at * 100}
            unit="%"
            onStart={onStart}
            onEnd={onEnd}
            onChange={(v) => replace(i, { at: v / 100 })}
          />
          <IconButton
            label={`Remove stop ${i + 1}`}
            size="small"
            disabled={stops.length <= 2}
            onClick={() => onChange({ stops: stops.filter((_, k) => k !== i) })}
          >
            <Trash2 size={13} />
          </IconButton>
        </div>
      ))}
      <button
        type="button"
        disabled={stops.length >= MOST_STOPS}
        onClick={add}
        className="flex h-6 items-center gap-1.5 rounded-md px-1 text-ink-2 hover:bg-paper-2"
      >
        <Plus size={13} /> Add a stop
      </button>
    </div>
  );
};
