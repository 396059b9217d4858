import type { Param } from '@kite/core/document/params';
import type { Value } from '@kite/core/document/types';
import { NumberField } from '../../ui/NumberField';
import { Segments } from '../../ui/Segments';

interface SettingFieldProps {
  param: Param;
  value: Value;
  /** How many the scene has. */
  frames: number;
  onChange: (value: Value) => void;
}

/** A setting of a format, by the description of its parameter. */
export const SettingField = ({ param, value, frames, onChange }: SettingFieldProps) => {
  switch (param.kind) {
    case 'choice':
      return <Segments label={param.label} value={value as string} options={param.choices} onChange={onChange} />;
    case 'number':
      return (
        <>
          <NumberField
            label={param.label}
            className="w-24"
            value={value as number}
            min={param.min}
            max={param.unit === 'frames' ? Math.min(param.max, frames - 1) : param.max}
            {...(param.whole && { decimals: 0 })}
            onChange={(v) => onChange(param.whole ? Math.round(v) : v)}
          />
          {param.hint !== undefined && <span className="text-ink-2">{param.hint}</span>}
        </>
      );
    case 'text':
      return (
        <input
          aria-label={param.label}
          className="h-[26px] w-full rounded-md bg-paper-2 px-2"
          placeholder={param.form === 'address' ? 'https://' : undefined}
          value={value as string}
          onChange={(event) => onChange(event.target.value)}
        />
      );
    case 'switch':
      return (
        <input
          type="checkbox"
          aria-label={param.label}
          checked={value as boolean}
          onChange={(event) => onChange(event.target.checked)}
          className="size-4"
        />
      );
    default:
      throw new TypeError(`no setting is of the kind ${param.kind}`);
  }
};
