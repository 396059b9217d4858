import { useRef } from 'react';
import { alike } from './alike';
import { NumberField, type NumberFieldProps } from './NumberField';

interface SeveralNumbersProps extends Omit<NumberFieldProps, 'value' | 'onChange' | 'onShift'> {
  /** Of each of the things that the field is for. */
  values: readonly number[];
  onChange: (values: readonly number[]) => void;
}

/** The same number of several things: typed it is one for all; dragged or stepped, those that differ go on differing. */
export const SeveralNumbers = ({
  values,
  onChange,
  onStart,
  min = -Infinity,
  max = Infinity,
  ...field
}: SeveralNumbersProps) => {
  // What they were when a gesture began: each step of it starts from there.
  const begun = useRef(values);
  return (
    <NumberField
      {...field}
      min={min}
      max={max}
      value={alike(values)}
      onStart={() => {
        begun.current = values;
        onStart?.();
      }}
      onChange={(value) => onChange(values.map(() => value))}
      onShift={(by) => onChange(begun.current.map((value) => Math.min(max, Math.max(min, value + by))))}
    />
  );
};
