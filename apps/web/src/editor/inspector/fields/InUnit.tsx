import type { NumberParam } from '@kite/core/document/params';
import { NumberField } from '../../../ui/NumberField';
import { common, type FieldProps } from './props';
import { factorOf, UNITS } from './units';

/** A number as it is shown in its unit. */
export const InUnit = ({ param, values, write, gesture }: FieldProps<NumberParam>) => {
  const factor = factorOf(param.unit);
  const value = common<number>(values);
  return (
    <NumberField
      label={param.label}
      value={value === null ? null : value * factor}
      min={param.min * factor}
      max={param.max * factor}
      step={param.step * factor}
      {...(UNITS[param.unit] && { unit: UNITS[param.unit] })}
      {...(param.whole && { decimals: 0 })}
      {...gesture}
      onChange={(v) => write(param.whole ? Math.round(v) : v / factor)}
    />
  );
};
