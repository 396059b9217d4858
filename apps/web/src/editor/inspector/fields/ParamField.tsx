import type {
  ChoiceParam,
  CutoutParam,
  GradientParam,
  NumberParam,
  Param,
  PathParam,
  PointParam,
  TextParam,
} from '@kite/core/document/params';
import type { CutOut, FontChoice, Gradient, PathValue, Point, PropertyRef, Value } from '@kite/core/document/types';
import { partParam } from '@kite/core/motion/apart';
import { Link2, Link2Off, SquareFunction } from 'lucide-react';
import { memo, useState } from 'react';
import { ColorField } from '../../../ui/ColorField';
import { NumberField } from '../../../ui/NumberField';
import { Segments } from '../../../ui/Segments';
import { Select } from '../../../ui/Select';
import { writeValues } from '../../commands/layers';
import { FormulaButton } from '../../formula/FormulaButton';
import { FormulaPanel } from '../../formula/FormulaPanel';
import { targetOf } from '../../commands/formulas';
import { isComputed, useShown } from '../../formula/useComputed';
import { useEditor, useSlice } from '../../store/context';
import { shownValue } from '../../timeline/ribbons';
import { sameRef } from '@kite/core/properties/find';
import { AssetField } from './AssetField';
import { CutoutField } from './CutoutField';
import { FontField } from './FontField';
import { GradientField } from './GradientField';
import { KeyDot } from './KeyDot';
import { NumbersField } from './NumbersField';
import { PathField } from './PathField';
import { SceneField } from './SceneField';
import { TextField } from './TextField';
import { factorOf, UNITS } from './units';

interface ParamFieldProps {
  /** The same property of one or several things. */
  refs: readonly PropertyRef[];
  param: Param;
}

/** The value that all have; null where they differ. */
const common = <V extends Value>(values: readonly Value[]): V | null => {
  const first = values[0];
  return first !== undefined && values.every((v) => JSON.stringify(v) === JSON.stringify(first)) ? (first as V) : null;
};

/** Kinds whose fields take the whole width, below their name. */
const isTall = (param: Param): param is GradientParam | PathParam | CutoutParam | (TextParam & { lines: 'many' }) =>
  ['gradient', 'path', 'cutout'].includes(param.kind) || (param.kind === 'text' && param.lines === 'many');

/** Whether all the choices have room beside each other. */
const fitsSegments = ({ choices }: ChoiceParam): boolean =>
  choices.length <= 4 && choices.reduce((sum, c) => sum + c.label.length + 4, 0) <= 25;

/** The values at the playhead. A thing that is not animated does not render again as the playhead moves. */
const useValues = (refs: readonly PropertyRef[], param: Param): readonly Value[] => {
  const samplers = useShown(refs, param);
  const constant = samplers.every((sampler) => sampler.constant);
  const frame = useSlice((s) => (constant ? 0 : s.frame));
  return samplers.map((sampler) => sampler.at(frame));
};

/** The values are subscribed to; the rest of a field changes only with what it is a field of. */
const sameField = (a: ParamFieldProps, b: ParamFieldProps): boolean =>
  a.param === b.param &&
  a.refs.length === b.refs.length &&
  a.refs.every((ref, i) => sameRef(ref, b.refs[i] as PropertyRef));

/** A parameter's name, its keyframe dot, and a field of its kind. */
export const ParamField = memo(({ refs, param }: ParamFieldProps) => {
  const editor = useEditor();
  const values = useValues(refs, param);
  const write = (value: Value) =>
    writeValues(
      editor,
      refs.map((ref) => [ref, value] as const),
      `Change ${param.label.toLowerCase()}`,
    );
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const dot = <KeyDot refs={refs} label={param.label} />;
  const first = refs[0] as PropertyRef;
  const { open, computed } = useSlice((s) => ({
    open: s.formulaAt !== null && sameRef(s.formulaAt, first),
    // A part's formula leaves the other part to its field.
    computed: refs.every(
      (ref) => isComputed(s, ref) && !isComputed(s, { ...ref, part: 0 }) === !isComputed(s, { ...ref, part: 1 }),
    ),
  }));
  const formula = <FormulaButton refs={refs} label={param.label} />;
  const panel = open && <FormulaPanel refs={refs} param={param} />;
  const property = JSON.stringify(targetOf(first));

  if (isTall(param)) {
    return (
      <div className="group flex flex-col gap-1" data-property={property}>
        <span className="relative flex items-center gap-1.5 text-ink-2">
          {dot} {param.label} {formula}
        </span>
        {panel}
        {computed ? (
          <ComputedValue refs={refs} param={param} value={values[0] as Value} />
        ) : param.kind === 'gradient' ? (
          <GradientField value={values[0] as Gradient} onChange={write} {...gesture} />
        ) : param.kind === 'cutout' ? (
          <CutoutField value={values[0] as CutOut} onChange={write} {...gesture} />
        ) : param.kind === 'path' ? (
          <PathField value={values[0] as PathValue} onChange={write} refTo={refs[0] as PropertyRef} />
        ) : (
          <TextField label={param.label} value={common<string>(values)} param={param} onChange={write} {...gesture} />
        )}
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-1">
      <div className="group grid grid-cols-[88px_1fr] items-center gap-2" data-property={property}>
        <span className="relative flex min-w-0 items-center gap-1 text-ink-2">
          {dot}
          <span className="min-w-0 flex-1 truncate" title={param.label}>
            {param.label}
          </span>
          {formula}
        </span>
        {computed ? (
          <ComputedValue refs={refs} param={param} value={values[0] as Value} />
        ) : (
          <>
            {param.kind === 'number' && (
              <NumberParamField param={param} value={common<number>(values)} write={write} {...gesture} />
            )}
            {param.kind === 'point' && <PointParamField param={param} values={values as Point[]} refs={refs} />}
            {param.kind === 'color' && (
              <ColorField label={param.label} value={common<string>(values)} onChange={write} {...gesture} />
            )}
            {param.kind === 'numbers' && (
              <NumbersField
                label={param.label}
                value={common<readonly number[]>(values)}
                param={param}
                onChange={write}
              />
            )}
            {param.kind === 'text' && (
              <TextField
                label={param.label}
                value={common<string>(values)}
                param={param}
                onChange={write}
                {...gesture}
              />
            )}
            {param.kind === 'font' && (
              <FontField label={param.label} value={common<FontChoice>(values)} onChange={write} />
            )}
            {param.kind === 'asset' && (
              <AssetField label={param.label} value={common<string>(values)} param={param} onChange={write} />
            )}
            {param.kind === 'scene' && (
              <SceneField label={param.label} value={common<string>(values)} onChange={write} />
            )}
            {param.kind === 'switch' && (
              <input
                type="checkbox"
                aria-label={param.label}
                checked={common<boolean>(values) ?? false}
                onChange={(event) => write(event.target.checked)}
                className="size-4 justify-self-start"
              />
            )}
            {param.kind === 'choice' &&
              (fitsSegments(param) ? (
                <Segments label={param.label} value={common<string>(values)} options={param.choices} onChange={write} />
              ) : (
                <Select
                  aria-label={param.label}
                  value={common<string>(values) ?? ''}
                  options={param.choices}
                  onChange={write}
                />
              ))}
          </>
        )}
      </div>
      {panel}
    </div>
  );
}, sameField);
ParamField.displayName = 'ParamField';

/** What a formula gives; it is changed in the formula. */
const ComputedValue = ({ refs, param, value }: ParamFieldProps & { value: Value }) => {
  const editor = useEditor();
  const first = refs[0] as PropertyRef;
  return (
    <button
      type="button"
      aria-label={`${param.label}, computed`}
      title="Computed by a formula: press to open it"
      className="tabular flex h-7 min-w-0 flex-1 items-center truncate rounded-md border border-dashed border-tail/60 bg-tail-2/50 px-2 text-tail"
      onClick={() => {
        const { part: _part, ...whole } = first;
        editor.set({ formulaAt: whole });
      }}
    >
      <SquareFunction size={13} className="mr-1.5 shrink-0" />
      <span className="truncate">{shownValue(param, value)}</span>
    </button>
  );
};

interface NumberParamFieldProps {
  param: NumberParam;
  value: number | null;
  write: (value: number) => void;
  onStart: () => void;
  onEnd: () => void;
}

const NumberParamField = ({ param, value, write, onStart, onEnd }: NumberParamFieldProps) => {
  const factor = factorOf(param.unit);
  return (
    <NumberField
      label={param.label}
      value={value === null ? null : value * factor}
      min={param.min * factor}
      max={param.max * factor}
      step={param.step * factor}
      {...(UNITS[param.unit] && { unit: UNITS[param.unit] })}
      onStart={onStart}
      onEnd={onEnd}
      onChange={(v) => write(v / factor)}
    />
  );
};

/** Two numbers; percentages can be linked so that both change in proportion. */
const PointParamField = ({
  param,
  values,
  refs,
}: {
  param: PointParam;
  values: readonly Point[];
  refs: readonly PropertyRef[];
}) => {
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
