import type { PointParam } from '@kite/core/document/params';
import type { Point, PropertyRef } from '@kite/core/document/types';
import { partParam } from '@kite/core/motion/apart';
import { Link2, Link2Off } from 'lucide-react';
import { useState } from 'react';
import { NumberField } from '../../../ui/NumberField';
import { writeValues } from '../../commands/layers';
import { isComputed } from '../../formula/useComputed';
import { useEditor, useSlice } from '../../store/context';
import { ComputedValue } from './ComputedValue';
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
  const [linked, setLinked] = useState(canLink);
  // What the values were when a scrub began: linked ones keep their proportion to that.
  const [start, setStart] = useState<readonly Point[] | null>(null);

  const write = (axis: 0 | 1, shown: number) => {
    const v = shown / factor;
    const from = start ?? values;
    writeValues(
      editor,
      refs.map((ref, i) => {
        const p = from[i] as Point;
        const other =
          linked && p[axis] !== 0 ? (p[1 - axis] as number) * (v / p[axis]) : linked ? v : (p[1 - axis] as number);
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
    const all = values.map((p) => p[axis]);
    const same = all.every((v) => v === all[0]);
    return (
      <NumberField
        label={`${param.label} ${axis === 0 ? 'x' : 'y'}`}
        value={same ? (all[0] ?? 0) * factor : null}
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
        onChange={(v) => write(axis, v)}
      />
    );
  };
  return (
    <span className="flex min-w-0 items-center gap-1">
      {field(0)}
      {canLink && (
        <button
          type="button"
          aria-label={`${param.label}: keep in proportion`}
          aria-pressed={linked}
          className={`shrink-0 ${linked ? 'text-sky' : 'text-ink-2'}`}
          onClick={() => setLinked(!linked)}
        >
          {linked ? <Link2 size={13} /> : <Link2Off size={13} />}
        </button>
      )}
      {field(1)}
    </span>
  );
};
