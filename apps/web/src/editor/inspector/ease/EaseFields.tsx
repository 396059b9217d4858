import type { Ease } from '@kite/core/document/types';
import { easeOfStrength, strengthOf } from '@kite/core/motion/eases/table';
import { NumberField } from '../../../ui/NumberField';
import { Select } from '../../../ui/Select';

interface EaseFieldsProps {
  ease: Ease;
  onStart: () => void;
  onChange: (ease: Ease) => void;
  onEnd: () => void;
}

const JUMPS = [
  { value: 'end', label: 'At the end' },
  { value: 'start', label: 'At the start' },
  { value: 'both', label: 'At both' },
  { value: 'none', label: 'At neither' },
] as const;

interface Field {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly unit?: string;
  readonly to: (value: number) => Ease;
}

const share = (v: number) => Math.round(v * 10) / 1000;

/** The numbers of an ease of each kind. */
const fieldsOf = (ease: Ease): readonly Field[] => {
  switch (ease.kind) {
    case 'linear':
    case 'bezier': {
      const strength = strengthOf(ease);
      return (['start', 'end'] as const).map((end) => ({
        label: `Strength at the ${end}`,
        value: strength[end] * 100,
        min: 0,
        max: 100,
        unit: '%',
        to: (v) => easeOfStrength({ ...strength, [end]: share(v) }),
      }));
    }
    case 'steps':
      return [
        { label: 'Steps', value: ease.count, min: 2, max: 1_000, to: (v) => ({ ...ease, count: Math.round(v) }) },
      ];
    case 'spring':
      return [
        { label: 'Bounces', value: ease.bounces, min: 1, max: 50, to: (v) => ({ ...ease, bounces: Math.round(v) }) },
        {
          label: 'Damping',
          value: ease.damping * 100,
          min: 0,
          max: 100,
          unit: '%',
          to: (v) => ({ ...ease, damping: share(v) }),
        },
      ];
    case 'bounce':
      return [
        { label: 'Bounces', value: ease.bounces, min: 1, max: 50, to: (v) => ({ ...ease, bounces: Math.round(v) }) },
        {
          label: 'Height kept',
          value: ease.height * 100,
          min: 0,
          max: 95,
          unit: '%',
          to: (v) => ({ ...ease, height: share(v) }),
        },
      ];
    case 'hold':
    case 'drawn':
      return [];
  }
};

export const EaseFields = ({ ease, onStart, onChange, onEnd }: EaseFieldsProps) => {
  const fields = fieldsOf(ease);
  return (
    <>
      {fields.length > 0 && (
        <div className="grid grid-cols-2 gap-2">
          {fields.map(({ label, to, unit, ...field }) => (
            <label key={label} className="flex flex-col gap-0.5 text-sm text-ink-2">
              {label}
              <NumberField
                label={label}
                decimals={0}
                step={0.5}
                {...(unit && { unit })}
                {...field}
                onStart={onStart}
                onChange={(v) => onChange(to(v))}
                onEnd={onEnd}
              />
            </label>
          ))}
          {ease.kind === 'steps' && (
            <label className="flex flex-col gap-0.5 text-sm text-ink-2">
              Jumps
              <Select
                value={ease.jump}
                options={JUMPS}
                onChange={(jump) => onChange({ ...ease, jump: jump as typeof ease.jump })}
              />
            </label>
          )}
        </div>
      )}
      {ease.kind === 'drawn' && (
        <p className="text-sm text-ink-2">
          Double-click the plot for a point, a point for a corner; Alt-click takes one away.
        </p>
      )}
    </>
  );
};
