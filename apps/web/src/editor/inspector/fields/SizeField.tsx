import type { NumberParam } from '@kite/core/document/params';
import type { PropertyRef } from '@kite/core/document/types';
import { useState } from 'react';
import { valueAt, writeValues } from '../../commands/layers';
import { useEditor } from '../../store/context';
import { InUnit } from './InUnit';
import { inProportion, ProportionSwitch, useProportion } from './Proportion';
import type { FieldProps } from './props';

interface SizeFieldProps extends FieldProps<NumberParam> {
  /** The key of the number with which it makes a size. */
  beside: string;
}

/** One side of a size, with which the other may go along. */
export const SizeField = ({ beside, ...field }: SizeFieldProps) => {
  const { param, refs, write, gesture } = field;
  const editor = useEditor();
  const linked = useProportion('size', false);
  const sides = () =>
    refs.map((own) => {
      const other: PropertyRef = { ...own, key: beside };
      return { own, other, from: [valueAt(editor, own) as number, valueAt(editor, other) as number] as const };
    });
  // What the sides were when a scrub began: they keep their proportion to that.
  const [start, setStart] = useState<ReturnType<typeof sides> | null>(null);
  const both = (values: readonly number[]) =>
    writeValues(
      editor,
      (start ?? sides()).flatMap(({ own, other, from }, i) => {
        const value = values[i] as number;
        return [[own, value] as const, [other, inProportion(value, ...from)] as const];
      }),
      'Change size',
    );
  return (
    <span className="flex min-w-0 items-center gap-1">
      <InUnit
        {...field}
        write={(...values) => (linked ? both(values as readonly number[]) : write(...values))}
        gesture={{
          onStart: () => {
            setStart(sides());
            gesture.onStart();
          },
          onEnd: () => {
            setStart(null);
            gesture.onEnd();
          },
        }}
      />
      <ProportionSwitch of="size" label={param.label} linked={linked} />
    </span>
  );
};
