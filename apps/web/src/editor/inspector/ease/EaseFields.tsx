import type { Ease, Value } from '@kite/core/document/types';
import { type Param, percent } from '@kite/core/document/params';
import { easeOfStrength, settingsOf, strengthOf } from '@kite/core/motion/eases/table';
import { fieldOf } from '../fields/table';

interface EaseFieldsProps {
  ease: Ease;
  onStart: () => void;
  onChange: (ease: Ease) => void;
  onEnd: () => void;
}

interface Shown {
  readonly param: Param;
  readonly value: Value;
  readonly to: (value: Value) => Ease;
}

const ENDS = {
  start: percent('Strength at the start', 0, { step: 0.005 }),
  end: percent('Strength at the end', 0, { step: 0.005 }),
};
/** To a tenth of a percent. */
const rounded = (v: number) => Math.round(v * 1_000) / 1_000;

/** What is set of an ease: its strengths where it is a curve, else what its kind is made of. */
const fieldsOf = (ease: Ease): readonly Shown[] => {
  if (ease.kind === 'linear' || ease.kind === 'bezier') {
    const strength = strengthOf(ease);
    return (['start', 'end'] as const).map((end) => ({
      param: ENDS[end],
      value: strength[end],
      to: (v) => easeOfStrength({ ...strength, [end]: rounded(v as number) }),
    }));
  }
  const given = ease as unknown as Readonly<Record<string, Value>>;
  return Object.entries(settingsOf(ease)).flatMap(([key, { param }]) =>
    param ? [{ param, value: given[key] as Value, to: (v: Value) => ({ ...ease, [key]: v }) as Ease }] : [],
  );
};

export const EaseFields = ({ ease, onStart, onChange, onEnd }: EaseFieldsProps) => {
  const fields = fieldsOf(ease);
  return (
    <>
      {fields.length > 0 && (
        <div className="grid grid-cols-2 gap-2">
          {fields.map(({ param, value, to }) => {
            const { Field } = fieldOf(param);
            return (
              <label key={param.label} className="flex flex-col gap-0.5 text-sm text-ink-2">
                {param.label}
                <Field
                  param={param}
                  values={[value]}
                  refs={[]}
                  write={(v) => onChange(to(v))}
                  gesture={{ onStart, onEnd }}
                />
              </label>
            );
          })}
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
