/** What the kinds of card share: sources add outlines, steps change what stands above, paints draw it. */
import type { Params, Values } from '../document/params';
import type { BlendMode, Color, CutOut, Gradient, PictureAsset, Point } from '../document/types';
import type { Matrix } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import type { Copy } from '../motion/sampler';
import type { Fonts } from '../type/types';

export type Ink =
  | { readonly style: 'solid'; readonly color: Color }
  | {
      readonly style: 'linear' | 'radial' | 'angular';
      readonly gradient: Gradient;
      readonly from: Point;
      readonly to: Point;
      /** How strongly grain lies over it, 0..1. */
      readonly grain: number;
    };

interface MarkBase {
  readonly outlines: readonly Outline[];
  readonly matrix: Matrix;
  readonly ink: Ink;
  readonly alpha: number;
}
export interface FillMark extends MarkBase {
  readonly op: 'fill';
  readonly rule: 'nonzero' | 'evenodd';
}
export interface StrokeMark extends MarkBase {
  readonly op: 'stroke';
  readonly width: number;
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
  readonly miterLimit: number;
  readonly dashes: readonly number[];
  readonly dashOffset: number;
}
/** Marks that fade or blend as one picture. */
export interface GroupMark {
  readonly op: 'group';
  readonly marks: readonly Mark[];
  readonly alpha: number;
  readonly blend: BlendMode;
  readonly clip?: Clip;
}
/** Where marks show: inside the outlines by the nonzero rule, or outside of them. */
export interface Clip {
  readonly outlines: readonly Outline[];
  readonly matrix: Matrix;
  readonly mode: 'show' | 'hide';
}
/** A picture, its middle at the origin. */
export interface PictureMark {
  readonly op: 'picture';
  readonly asset: PictureAsset;
  readonly cut: CutOut | null;
  readonly matrix: Matrix;
  readonly alpha: number;
}
/** One drawing operation: what a display list is made of. */
export type Mark = FillMark | StrokeMark | PictureMark | GroupMark;

/** Outlines that belong together, as the two of a letter o: what one source gives, or one copy of it. */
export interface Shape {
  readonly outlines: readonly Outline[];
  /** How strongly paints below draw it: a repeater's copies fade. */
  readonly alpha: number;
}

/** What the cards so far have given: outlines for the cards below, and marks already drawn. */
export interface Flow {
  readonly shapes: readonly Shape[];
  readonly marks: readonly Mark[];
}

export const EMPTY: Flow = { shapes: [], marks: [] };

interface CardKind<P extends Params> {
  readonly kind: string;
  readonly label: string;
  readonly params: P;
  /** One line for the card, from its values. */
  readonly summary: (values: Values<P>) => string;
}
export interface SourceKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'source';
  readonly outlines: (values: Values<P>, fonts: Fonts) => readonly Outline[];
}
/** What a step may ask of the cards above it. */
export interface Above {
  readonly frame: number;
  /** The flow at any frame; of one copy of a repeater's. */
  readonly at: (frame: number, copy?: Copy) => Flow;
  /** Takes room for so many more shapes, and for so much work; false where there is none left, for good. */
  readonly take: (count: number, work: number) => boolean;
  /** Takes room for work with areas; false where it is more than they may take, and they are left as they are. */
  readonly takeAreas: (work: number) => boolean;
}
export interface StepKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'step';
  readonly apply: (above: Above, values: Values<P>) => Flow;
  /** Whether it asks for copies with numbers of their own. */
  readonly copies?: boolean;
}
export interface PaintKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'paint';
  readonly mark: (outlines: readonly Outline[], alpha: number, values: Values<P>) => Mark | null;
}
/** A recipe inside a recipe: its parameters place it. */
export interface GroupKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'group';
}
export type Kind = SourceKind | StepKind | PaintKind | GroupKind;

export const source = <P extends Params>(kind: Omit<SourceKind<P>, 'role'>) => ({ role: 'source', ...kind }) as const;
export const step = <P extends Params>(kind: Omit<StepKind<P>, 'role'>) => ({ role: 'step', ...kind }) as const;
export const paint = <P extends Params>(kind: Omit<PaintKind<P>, 'role'>) => ({ role: 'paint', ...kind }) as const;

/** A number as a person writes it: two decimals at most. */
export const short = (n: number): string => String(Math.round(n * 100) / 100);
export const shortPercent = (n: number): string => `${short(n * 100)} %`;
