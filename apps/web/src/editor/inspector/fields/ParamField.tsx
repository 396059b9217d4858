import type { Param } from '@kite/core/document/params';
import type { PropertyRef, Value } from '@kite/core/document/types';
import { sameRef } from '@kite/core/properties/find';
import { memo } from 'react';
import { targetOf } from '../../commands/formulas';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { FormulaButton } from '../../formula/FormulaButton';
import { FormulaPanel } from '../../later';
import { isComputed, useShown } from '../../formula/useComputed';
import { useEditor, useSlice } from '../../store/context';
import { ComputedValue } from './ComputedValue';
import { KeyDot } from './KeyDot';
import { fieldOf } from './table';
import { NAME_AND_FIELD } from '../row';

interface ParamFieldProps {
  /** The same property of one or several things. */
  refs: readonly PropertyRef[];
  param: Param;
}

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
  const write = (...to: readonly Value[]) =>
    writeValues(
      editor,
      refs.map((ref, i) => [ref, (to.length === 1 ? to[0] : to[i]) as Value] as const),
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
  const writes = useSlice((s) => (s.playing || computed ? null : writesAt(s, refs)));
  // Where the hand is, before anything has happened: over the name, while the value is pointed at or written in.
  const says = writes && (
    <span
      role="note"
      aria-label={WRITES[writes].means}
      className="pointer-events-none invisible absolute inset-y-0 right-0 left-5 z-10 bg-paper text-xs leading-5 whitespace-nowrap text-kite group-has-[.value:focus-within]:visible group-has-[.value:hover]:visible"
    >
      {WRITES[writes].short}
    </span>
  );
  const formula = <FormulaButton refs={refs} label={param.label} />;
  const panel = open && <FormulaPanel refs={refs} param={param} />;
  const property = JSON.stringify(targetOf(first));
  const { Field, tall } = fieldOf(param);
  const field = computed ? (
    <ComputedValue refs={refs} param={param} value={values[0] as Value} />
  ) : (
    <Field param={param} values={values} refs={refs} write={write} gesture={gesture} />
  );

  if (tall) {
    return (
      <div className="group flex flex-col gap-1" data-property={property}>
        <span className="relative flex items-center gap-1.5 text-ink-2">
          {dot} {param.label} {formula}
          {says}
        </span>
        {panel}
        <span className="value flex flex-col">{field}</span>
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-1">
      <div className={`group ${NAME_AND_FIELD}`} data-property={property}>
        <span className="relative flex min-w-0 items-center gap-1 text-ink-2">
          {dot}
          <span
            className="min-w-0 flex-1 leading-4"
            title={param.hint === undefined ? param.label : `${param.label} ${param.hint}`}
          >
            {param.label}
          </span>
          {formula}
          {says}
        </span>
        <span className="value min-w-0">{field}</span>
      </div>
      {panel}
    </div>
  );
}, sameField);
ParamField.displayName = 'ParamField';
