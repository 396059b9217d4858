/** The field of each kind of parameter. */
import type { ChoiceParam, NumberParam, Param } from '@kite/core/document/params';
import type { CutOut, FontChoice, Gradient, PathValue, Point, PropertyRef, Value } from '@kite/core/document/types';
import type { ComponentType } from 'react';
import { ColorField } from '../../../ui/ColorField';
import { NumberField } from '../../../ui/NumberField';
import { Segments } from '../../../ui/Segments';
import { Select } from '../../../ui/Select';
import { AssetField } from './AssetField';
import { CutoutField } from './CutoutField';
import { FontField } from './FontField';
import { GradientField } from './GradientField';
import { LayerField } from './LayerField';
import { NumbersField } from './NumbersField';
import { PathField } from './PathField';
import { PointField } from './PointField';
import { SceneField } from './SceneField';
import { TextField } from './TextField';
import { factorOf, UNITS } from './units';

export interface FieldProps<P extends Param = Param> {
  param: P;
  /** Of each thing that the field is for. */
  values: readonly Value[];
  refs: readonly PropertyRef[];
  write: (value: Value) => void;
  /** Around a change that goes on for a while. */
  gesture: { readonly onStart: () => void; readonly onEnd: () => void };
}
interface FieldKind<P extends Param> {
  readonly Field: ComponentType<FieldProps<P>>;
  /** Whether it takes the whole width, below its name. */
  readonly tall?: (param: P) => boolean;
}

/** The value that all have; null where they differ. */
const common = <V extends Value>(values: readonly Value[]): V | null => {
  const first = values[0];
  return first !== undefined && values.every((v) => JSON.stringify(v) === JSON.stringify(first)) ? (first as V) : null;
};

const InUnit = ({ param, values, write, gesture }: FieldProps<NumberParam>) => {
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

/** Whether all the choices have room beside each other. */
const fitsSegments = ({ choices }: ChoiceParam): boolean =>
  choices.length <= 4 && choices.reduce((sum, c) => sum + c.label.length + 4, 0) <= 25;

/** What stands in a list where several things differ. */
const MIXED = { value: '', label: 'mixed' };

const ChoiceField = ({ param, values, write }: FieldProps<ChoiceParam>) => {
  const value = common<string>(values);
  if (fitsSegments(param)) {
    return <Segments label={param.label} value={value} options={param.choices} onChange={write} />;
  }
  const options = value === null ? [MIXED, ...param.choices] : param.choices;
  return <Select aria-label={param.label} value={value ?? ''} options={options} onChange={(v) => v && write(v)} />;
};

const always = () => true;

const FIELDS: { readonly [K in Param['kind']]: FieldKind<Extract<Param, { kind: K }>> } = {
  number: { Field: InUnit },
  point: { Field: ({ param, values, refs }) => <PointField param={param} values={values as Point[]} refs={refs} /> },
  color: {
    Field: ({ param, values, write, gesture }) => (
      <ColorField label={param.label} value={common<string>(values)} onChange={write} {...gesture} />
    ),
  },
  numbers: {
    Field: ({ param, values, write }) => (
      <NumbersField label={param.label} value={common<readonly number[]>(values)} param={param} onChange={write} />
    ),
  },
  text: {
    tall: ({ lines }) => lines === 'many',
    Field: ({ param, values, write, gesture }) => (
      <TextField label={param.label} value={common<string>(values)} param={param} onChange={write} {...gesture} />
    ),
  },
  font: {
    Field: ({ param, values, write }) => (
      <FontField label={param.label} value={common<FontChoice>(values)} onChange={write} />
    ),
  },
  asset: {
    Field: ({ param, values, write }) => (
      <AssetField label={param.label} value={common<string>(values)} param={param} onChange={write} />
    ),
  },
  scene: {
    Field: ({ param, values, write }) => (
      <SceneField label={param.label} value={common<string>(values)} onChange={write} />
    ),
  },
  layer: {
    Field: ({ param, values, refs }) => <LayerField label={param.label} value={common<string>(values)} refs={refs} />,
  },
  switch: {
    Field: ({ param, values, write }) => (
      <input
        type="checkbox"
        aria-label={param.label}
        checked={common<boolean>(values) ?? false}
        ref={(box) => {
          if (box) box.indeterminate = common<boolean>(values) === null;
        }}
        onChange={(event) => write(event.target.checked)}
        className="size-4 justify-self-start"
      />
    ),
  },
  choice: { Field: ChoiceField },
  gradient: {
    tall: always,
    Field: ({ values, write, gesture }) => (
      <GradientField value={values[0] as Gradient} onChange={write} {...gesture} />
    ),
  },
  cutout: {
    tall: always,
    Field: ({ values, write, gesture }) => <CutoutField value={values[0] as CutOut} onChange={write} {...gesture} />,
  },
  path: {
    tall: always,
    Field: ({ values, write, refs }) => (
      <PathField value={values[0] as PathValue} onChange={write} refTo={refs[0] as PropertyRef} />
    ),
  },
};

/** What the field of a parameter is, and whether it stands below its name. */
export const fieldOf = (param: Param): { Field: ComponentType<FieldProps>; tall: boolean } => {
  // Each field takes parameters of its own kind, by which it was found.
  const { Field, tall } = FIELDS[param.kind] as unknown as FieldKind<Param>;
  return { Field, tall: tall?.(param) ?? false };
};
