import type { PointParam } from '@kite/core/document/params';
import type { Point, PropertyRef } from '@kite/core/document/types';
import { partParam } from '@kite/core/motion/apart';
import { useState } from 'react';
import { SeveralNumbers } from '../../../ui/SeveralNumbers';
import { writeValues } from '../../commands/layers';
import { isComputed } from '../../formula/useComputed';
import { useEditor, useSlice } from '../../store/context';
import { ComputedValue } from './ComputedValue';
import { inProportion, ProportionSwitch, useProportion } from './Proportion';
import { factorOf } from './units';

interface PointFieldProps {
  param: PointParam;
  values: readonly Point[];
  refs: readonly PropertyRef[];
}

/** Two numbers; percentages can be linked so that both change in proportion. */
export const PointField = ({ param, values, refs }: PointFieldProps) => {
  const editor = useEditor();
  const factor = factorOf(param.unit);
  const canLink = param.unit === 'percent';
  const key = refs[0]?.key ?? '';
  const linked = useProportion(key, true) && canLink;
  // What the values were when a scrub began: linked ones keep their proportion to that.
  const [start, setStart] = useState<readonly Point[] | null>(null);

  const write = (axis: 0 | 1, shown: readonly number[]) => {
    const from = start ?? values;
    writeValues(
      editor,
      refs.map((ref, i) => {
        const p = from[i] as Point;
        const v = (shown[i] as number) / factor;
        const beside = p[1 - axis] as number;
        const other = linked ? inProportion(v, p[axis], beside) : beside;
        return [ref, axis === 0 ? [v, other] : [other, v]] as const;
      }),
      `Change ${param.label.toLowerCase()}`,
    );
  };
  const computed = useSlice((s) =>
    ([0, 1] as const).map((part) => refs.every((ref) => isComputed(s, { ...ref, part }))),
  );
  const field = (axis: 0 | 1) => {
    if (computed[axis]) {
      return (
        <ComputedValue
          refs={refs.map((ref) => ({ ...ref, part: axis }))}
          param={partParam(param, axis)}
          value={values[0]?.[axis] ?? 0}
        />
      );
    }
    return (
      <SeveralNumbers
        label={`${param.label} ${axis === 0 ? 'x' : 'y'}`}
        values={values.map((p) => p[axis] * factor)}
        min={-param.limit * factor}
        max={param.limit * factor}
        step={param.step * factor}
        decimals={canLink ? 1 : 2}
        className="flex-1"
        before={<span className="text-xs text-ink-2">{axis === 0 ? 'x' : 'y'}</span>}
        onStart={() => {
          setStart(values);
          editor.begin();
        }}
        onEnd={() => {
          setStart(null);
          editor.end();
        }}
        onChange={(each) => write(axis, each)}
      />
    );
  };
  return (
    <span className="flex min-w-0 items-center gap-1">
      {field(0)}
      {canLink && <ProportionSwitch of={key} label={param.label} linked={linked} />}
      {field(1)}
    </span>
  );
};
