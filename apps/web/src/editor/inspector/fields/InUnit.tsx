import type { NumberParam } from '@kite/core/document/params';
import { SeveralNumbers } from '../../../ui/SeveralNumbers';
import type { FieldProps } from './props';
import { factorOf, UNITS } from './units';

/** A number as it is shown in its unit. */
export const InUnit = ({ param, values, write, gesture }: FieldProps<NumberParam>) => {
  const factor = factorOf(param.unit);
  return (
    <SeveralNumbers
      label={param.label}
      values={values.map((value) => (value as number) * factor)}
      min={param.min * factor}
      max={param.max * factor}
      step={param.step * factor}
      {...(UNITS[param.unit] && { unit: UNITS[param.unit] })}
      {...(param.whole && { decimals: 0 })}
      {...gesture}
      onChange={(each) => write(...each.map((v) => (param.whole ? Math.round(v) : v / factor)))}
    />
  );
};
