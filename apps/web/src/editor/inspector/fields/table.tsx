/** The field of each kind of parameter. */
import type { ChoiceParam, NumbersParam, Param } from '@kite/core/document/params';
import type {
  BrushStroke,
  CutOut,
  FontChoice,
  Gradient,
  GrowthValue,
  MeshValue,
  PathValue,
  Point,
  PropertyRef,
  Value,
} from '@kite/core/document/types';
import type { ComponentType } from 'react';
import { Segments } from '../../../ui/Segments';
import type { PastedTable } from '../../../ui/pastedTable';
import { Select } from '../../../ui/Select';
import { writeValues } from '../../commands/layers';
import { useEditor } from '../../store/context';
import { AssetField } from './AssetField';
import { GrowthField } from './GrowthField';
import { MeshField } from './MeshField';
import { CutoutField } from './CutoutField';
import { FeaturesField } from './FeaturesField';
import { FontField } from './FontField';
import { GradientField } from './GradientField';
import { InUnit } from './InUnit';
import { LayerField } from './LayerField';
import { isLong, NumbersField } from './NumbersField';
import { PathField } from './PathField';
import { PointField } from './PointField';
import { common, type FieldProps } from './props';
import { SceneField } from './SceneField';
import { SizeField } from './SizeField';
import { SwatchedField } from './SwatchedField';
import { StrokesField } from './StrokesField';
import { TextField } from './TextField';

interface FieldKind<P extends Param> {
  readonly Field: ComponentType<FieldProps<P>>;
  /** Whether it takes the whole width, below its name. */
  readonly tall?: (param: P) => boolean;
}

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

/** A list of numbers. A table that is pasted into it has their names too, where there are such. */
const ListField = ({ param, values, refs, write }: FieldProps<NumbersParam>) => {
  const editor = useEditor();
  const { label, named } = param;
  const onTable = ({ numbers, names }: PastedTable) =>
    writeValues(
      editor,
      refs.flatMap((ref): (readonly [PropertyRef, Value])[] => [
        [ref, numbers],
        ...(named !== undefined && names ? [[{ ...ref, key: named }, names.join('\n')] as const] : []),
      ]),
      'Paste a table',
    );
  return (
    <NumbersField
      label={label}
      value={common<readonly number[]>(values)}
      param={param}
      onChange={write}
      {...(named !== undefined && { onTable })}
    />
  );
};

const always = () => true;

const FIELDS: { readonly [K in Param['kind']]: FieldKind<Extract<Param, { kind: K }>> } = {
  number: {
    Field: (props) =>
      props.param.beside ? <SizeField {...props} beside={props.param.beside} /> : <InUnit {...props} />,
  },
  point: { Field: ({ param, values, refs }) => <PointField param={param} values={values as Point[]} refs={refs} /> },
  color: { Field: SwatchedField },
  numbers: {
    tall: isLong,
    Field: ListField,
  },
  text: {
    tall: ({ lines }) => lines === 'many',
    Field: ({ param, values, write, refs, gesture }) => {
      const { label } = param;
      return param.form === 'features' ? (
        <FeaturesField label={label} values={values as readonly string[]} refs={refs} write={write} />
      ) : (
        <TextField label={label} value={common<string>(values)} param={param} onChange={write} {...gesture} />
      );
    },
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
  mesh: {
    Field: ({ values, write, gesture }) => <MeshField value={values[0] as MeshValue} onChange={write} {...gesture} />,
  },
  growth: {
    tall: always,
    Field: ({ values, write, refs, gesture }) => (
      <GrowthField value={values[0] as GrowthValue} onChange={write} refTo={refs[0] as PropertyRef} {...gesture} />
    ),
  },
  strokes: {
    tall: always,
    Field: ({ values, write, gesture }) => (
      <StrokesField value={values[0] as readonly BrushStroke[]} onChange={write} {...gesture} />
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
