/**
 * Descriptions of parameters. A parameter is described once; the schema, the inspector's field, the
 * ribbon's name, the evaluator and the docs follow from the description.
 */
import { LIMITS, WIDEST_EYE } from './limits';
import type {
  BrushStroke,
  Color,
  CutOut,
  FontChoice,
  Gradient,
  GrowthValue,
  Id,
  MeshValue,
  PathValue,
  Point,
  ValueTypes,
} from './types';

export type Unit = '' | 'px' | 'deg' | 'percent' | 'frames';

interface Described {
  readonly label: string;
  /** Shown only while another parameter of the same thing has one of these values; any that is not empty where none are given. */
  readonly when?: readonly [key: string, ...values: string[]];
  /** What a thing is rather than how it looks: auto-key sets no first keyframe on it. */
  readonly still?: true;
  /** What stands beside the field. */
  readonly hint?: string;
}
export interface NumberParam extends Described {
  readonly kind: 'number';
  readonly unit: Unit;
  readonly min: number;
  readonly max: number;
  /** What one pixel of scrubbing changes, in stored units. */
  readonly step: number;
  readonly default: number;
  /** A frame of the scene: it goes along when its layer is moved in time. */
  readonly clock?: true;
  /** Whole numbers alone. */
  readonly whole?: true;
  /** The key of the number beside it with which it makes a size. */
  readonly beside?: string;
}
export interface PointParam extends Described {
  readonly kind: 'point';
  readonly unit: Unit;
  readonly limit: number;
  readonly step: number;
  readonly default: Point;
}
export interface ColorParam extends Described {
  readonly kind: 'color';
  readonly default: Color;
}
export interface GradientParam extends Described {
  readonly kind: 'gradient';
  readonly default: Gradient;
}
export interface PathParam extends Described {
  readonly kind: 'path';
  readonly default: PathValue;
}
export interface NumbersParam extends Described {
  readonly kind: 'numbers';
  readonly unit: Unit;
  readonly min: number;
  readonly max: number;
  readonly most: number;
  /** The key of the text beside it that names them, each in a line. */
  readonly named?: string;
  readonly default: readonly number[];
}
export interface SwitchParam extends Described {
  readonly kind: 'switch';
  readonly default: boolean;
}
export interface ChoiceParam<C extends string = string> extends Described {
  readonly kind: 'choice';
  readonly choices: readonly { readonly value: C; readonly label: string }[];
  readonly default: C;
}
export type TextForm = 'address' | 'colors' | 'features' | 'stays' | 'areas';
export interface TextParam extends Described {
  readonly kind: 'text';
  /** Characters, at the most. */
  readonly most: number;
  readonly lines: 'one' | 'many';
  /** What it says: the address of a page, a list of colours, OpenType features, frames and how long each stays; or nothing. */
  readonly form?: TextForm;
  readonly default: string;
}
export interface FontParam extends Described {
  readonly kind: 'font';
  readonly default: FontChoice;
}
/** A file of the project, of one kind. */
export interface AssetParam extends Described {
  readonly kind: 'asset';
  readonly of: 'picture';
  readonly default: Id;
}
/** Another scene of the project. */
export interface SceneParam extends Described {
  readonly kind: 'scene';
  readonly default: Id;
}
/** Another layer of the same scene. */
export interface LayerParam extends Described {
  readonly kind: 'layer';
  readonly default: Id;
}
/** What is cut out of a picture. */
export interface CutoutParam extends Described {
  readonly kind: 'cutout';
  readonly default: CutOut;
}
/** A mesh of points. */
export interface MeshParam extends Described {
  readonly kind: 'mesh';
  readonly default: MeshValue;
}
/** How something grows. */
export interface GrowthParam extends Described {
  readonly kind: 'growth';
  readonly default: GrowthValue;
}
/** Strokes of a brush, in the order in which they were drawn. */
export interface StrokesParam extends Described {
  readonly kind: 'strokes';
  readonly default: readonly BrushStroke[];
}
export type Param =
  | NumberParam
  | PointParam
  | ColorParam
  | GradientParam
  | PathParam
  | NumbersParam
  | SwitchParam
  | ChoiceParam
  | TextParam
  | FontParam
  | AssetParam
  | SceneParam
  | LayerParam
  | CutoutParam
  | MeshParam
  | GrowthParam
  | StrokesParam;

export type Params = { readonly [key: string]: Param };

/** The values of a set of parameters at one frame. */
export type Values<P extends Params> = {
  readonly [K in keyof P]: P[K] extends ChoiceParam<infer C> ? C : ValueTypes[P[K]['kind']];
};

/** The farthest a coordinate may lie from the origin, in pixels. */
export const FAR = 100_000;
/** Letters of a text that is set. */
export const MOST_LETTERS = 5_000;
export const MOST_VERTICES = 5_000;
export const MOST_STOPS = 32;

type NumberOptions = Partial<
  Pick<NumberParam, 'unit' | 'min' | 'max' | 'step' | 'when' | 'clock' | 'still' | 'whole' | 'hint' | 'beside'>
>;

export const number = (label: string, value: number, o: NumberOptions = {}): NumberParam => ({
  kind: 'number',
  label,
  unit: o.unit ?? '',
  min: o.min ?? -FAR,
  max: o.max ?? FAR,
  step: o.step ?? 1,
  default: value,
  ...(o.when && { when: o.when }),
  ...(o.clock && { clock: o.clock }),
  ...(o.still && { still: o.still }),
  ...(o.whole && { whole: o.whole }),
  ...(o.hint !== undefined && { hint: o.hint }),
  ...(o.beside !== undefined && { beside: o.beside }),
});

/** The frame of its own scene at which something begins to play: it goes along where its layer is moved in time. */
export const beginsAt = (o: Pick<NumberOptions, 'when'> = {}) =>
  number('Begins at', 0, {
    unit: 'frames',
    min: -LIMITS.frame,
    max: LIMITS.frame,
    clock: true,
    still: true,
    ...o,
  });

export const px = (label: string, value: number, o: NumberOptions = {}) => number(label, value, { unit: 'px', ...o });
export const degrees = (label: string, value: number, o: NumberOptions = {}) =>
  number(label, value, { unit: 'deg', ...o });
/** Stored as a fraction: 1 is 100 %. */
export const percent = (label: string, value: number, o: NumberOptions = {}) =>
  number(label, value, { unit: 'percent', min: 0, max: 1, step: 0.01, ...o });

export const point = (
  label: string,
  value: Point,
  o: Partial<Pick<PointParam, 'unit' | 'limit' | 'step' | 'when'>> = {},
): PointParam => ({ kind: 'point', label, unit: 'px', limit: FAR, step: 1, default: value, ...o });

export const color = (label: string, value: Color, o: Pick<Described, 'when'> = {}): ColorParam => ({
  kind: 'color',
  label,
  default: value,
  ...o,
});
export const gradient = (label: string, value: Gradient, o: Pick<Described, 'when'> = {}): GradientParam => ({
  kind: 'gradient',
  label,
  default: value,
  ...o,
});
export const path = (label: string, value: PathValue): PathParam => ({ kind: 'path', label, default: value });
export const numbers = (
  label: string,
  value: readonly number[],
  o: Pick<NumbersParam, 'unit' | 'min' | 'max' | 'most' | 'named' | 'hint'>,
): NumbersParam => ({ kind: 'numbers', label, default: value, ...o });

export const switchParam = (label: string, value: boolean, o: Pick<SwitchParam, 'when'> = {}): SwitchParam => ({
  kind: 'switch',
  label,
  default: value,
  ...o,
});

export const text = (
  label: string,
  value: string,
  o: Pick<TextParam, 'most' | 'lines' | 'form' | 'hint' | 'when'>,
): TextParam => ({
  kind: 'text',
  label,
  default: value,
  ...o,
});
/** What text is set in that nobody has chosen a font for. */
export const FIRST_FONT: FontChoice = { family: 'Inter', weight: 700, italic: false };
export const font = (label: string, value: FontChoice): FontParam => ({ kind: 'font', label, default: value });

export const asset = (label: string, of: AssetParam['of']): AssetParam => ({
  kind: 'asset',
  label,
  of,
  still: true,
  default: '',
});
export const scene = (label: string): SceneParam => ({ kind: 'scene', label, still: true, default: '' });
export const layer = (label: string): LayerParam => ({ kind: 'layer', label, still: true, default: '' });

/** All of the picture. */
export const UNCUT: CutOut = { seeds: [], grow: 0, soften: 0, strokes: [] };
export const isUncut = (cut: CutOut): boolean =>
  cut.seeds.length + cut.strokes.length === 0 && cut.grow === 0 && cut.soften === 0;
export const cutout = (label: string): CutoutParam => ({ kind: 'cutout', label, still: true, default: UNCUT });

/** Columns and rows of a mesh, each. */
export const MOST_MESH = 8;
/** A mesh whose points are where they are in a plain grid. */
export const plainMesh = (columns: number, rows: number): MeshValue => ({
  columns,
  rows,
  ways: Array.from({ length: 2 * (columns + 1) * (rows + 1) }, () => 0),
});
export const mesh = (label: string, columns: number, rows: number): MeshParam => ({
  kind: 'mesh',
  label,
  default: plainMesh(columns, rows),
});

export const growth = (label: string): GrowthParam => ({
  kind: 'growth',
  label,
  default: { points: [], strokes: [] },
});

export const strokes = (label: string): StrokesParam => ({ kind: 'strokes', label, still: true, default: [] });

export const choice = <const C extends string>(
  label: string,
  choices: readonly { readonly value: C; readonly label: string }[],
  value: NoInfer<C>,
  o: Pick<Described, 'when'> = {},
): ChoiceParam<C> => ({ kind: 'choice', label, choices, default: value, ...o });

/** Where a group of cards is, within its layer. */
export const FLAT_PLACE = {
  position: point('Position', [0, 0]),
  pivot: point('Pivot', [0, 0]),
  scale: point('Scale', [1, 1], { unit: 'percent', limit: 1000, step: 0.01 }),
  rotation: degrees('Turn', 0),
  along: switchParam('Face path', false),
  opacity: percent('Opacity', 1),
} satisfies Params;

const IN_DEPTH = { when: ['depth', 'true'] } as const;

/** What a layer has besides, once it has depth. */
export const DEPTH = {
  z: px('z', 0, { hint: 'away from the eye', ...IN_DEPTH }),
  turnX: degrees('Turn x', 0, IN_DEPTH),
  turnY: degrees('Turn y', 0, IN_DEPTH),
  pivotZ: px('Pivot z', 0, IN_DEPTH),
  scaleZ: percent('Scale z', 1, { min: -1000, max: 1000, ...IN_DEPTH }),
  back: choice(
    'Back',
    [
      { value: 'shown', label: 'Shown' },
      { value: 'hidden', label: 'Hidden' },
      { value: 'colored', label: 'A colour' },
    ],
    'shown',
    IN_DEPTH,
  ),
  lit: switchParam('Lit', false, IN_DEPTH),
  /** Of a controller: the scene is looked at through it. */
  camera: switchParam('Camera', false, IN_DEPTH),
  angle: degrees('View', 40, { min: 0, max: WIDEST_EYE, when: ['camera', 'true'] }),
  /** Of a camera: it stands where it stands and looks at a point, whatever its turns. */
  aims: switchParam('Looks at a point', false, { when: ['camera', 'true'] }),
  target: point('Target', [0, 0], { when: ['aims', 'true'] }),
  targetZ: px('Target z', 0, { when: ['aims', 'true'] }),
  backColor: color('Colour of the back', '#2B2F77', { when: ['back', 'colored'] }),
} satisfies Params;

/** Where a layer is: the same for every kind of layer. */
export const PLACE = { ...FLAT_PLACE, depth: switchParam('Depth', false), ...DEPTH } satisfies Params;
