/** The values that properties have, and the eases between them. */
import type { BRUSH_TIPS } from './limits';

export type Id = string;
export type Point = readonly [x: number, y: number];
export type Color = string;

export interface GradientStop {
  /** Place along the gradient, 0..1. */
  readonly at: number;
  readonly color: Color;
  /** The swatch that the colour is taken from, and follows. */
  readonly swatch?: Id;
}
export interface Gradient {
  /** Two or more stops in rising order of `at`. */
  readonly stops: readonly GradientStop[];
}

/** A vertex of a path: its place, then its handles relative to it. */
export type Vertex = readonly [x: number, y: number, inX: number, inY: number, outX: number, outY: number];
export interface PathValue {
  readonly closed: boolean;
  readonly vertices: readonly Vertex[];
}

/** A font as text asks for it. */
export interface FontChoice {
  readonly family: string;
  /** 100 to 900, as in CSS. */
  readonly weight: number;
  readonly italic: boolean;
}

/** A click on a background: everything like it that touches it goes. */
export interface CutSeed {
  /** Pixels of the picture. */
  readonly x: number;
  readonly y: number;
  /** How far a colour may differ, 0..1 of the way from black to white. */
  readonly tolerance: number;
}
/** A brush stroke over a cut. */
export interface CutStroke {
  readonly keep: boolean;
  /** Diameter, in pixels of the picture. */
  readonly size: number;
  readonly points: readonly Point[];
}
/** Where something grows from, or where on its way it waits and goes on at another pace. */
export interface GrowthPoint {
  readonly at: Point;
  /** Whether it grows from here. */
  readonly root: boolean;
  /** Pixels that what grows elsewhere comes along before it sets out from here. */
  readonly wait: number;
  /** How fast it goes on from here: 1 as everything does. */
  readonly pace: number;
}
/** A stroke drawn by hand: x, y and the milliseconds since it began of each of its points. */
export type GuideStroke = readonly number[];
/** How something grows: from roots, by the way inside it; or, where there are strokes, as those were drawn. */
export interface GrowthValue {
  readonly points: readonly GrowthPoint[];
  readonly strokes: readonly GuideStroke[];
}
export type BrushTip = (typeof BRUSH_TIPS)[number];
/** A stroke of a brush: its outline is made of it anew wherever it is drawn. */
export interface BrushStroke {
  /** x, y and how hard it was pressed, 0..1, of each point; it runs smoothly through them. */
  readonly points: readonly number[];
  readonly color: Color;
  /** Its width where it is pressed half, in pixels. */
  readonly size: number;
  readonly tip: BrushTip;
  /** How much the pressure changes its width, 0..1. */
  readonly thins: number;
  /** The share of its length over which it comes to a point at each end, 0..0.5. */
  readonly taper: number;
  /** How strongly it is drawn, or takes away, 0..1; 1 where it is not given. */
  readonly opacity?: number;
  /** Which of the grains that a textured tip can leave: 0 where it is not given. */
  readonly seed?: number;
  /** Whether it takes away what is drawn before it. */
  readonly erases: boolean;
}
/** A grid of so many columns and rows, and how far each of its points is moved from where it stands in a plain one: x and y, row by row. */
export interface MeshValue {
  readonly columns: number;
  readonly rows: number;
  readonly ways: readonly number[];
}
/** How a picture is cut out of its background. The picture itself stays whole. */
export interface CutOut {
  readonly seeds: readonly CutSeed[];
  /** Pixels that the edge moves outward; negative ones inward. */
  readonly grow: number;
  /** Pixels over which the edge fades. */
  readonly soften: number;
  readonly strokes: readonly CutStroke[];
}

/** Every kind of value a property can have. */
export interface ValueTypes {
  number: number;
  point: Point;
  color: Color;
  gradient: Gradient;
  path: PathValue;
  /** A list of numbers, such as a stroke's dashes. */
  numbers: readonly number[];
  switch: boolean;
  choice: string;
  text: string;
  font: FontChoice;
  /** The id of a file of the project; empty while none is chosen. */
  asset: Id;
  /** The id of another scene of the project; empty while none is chosen. */
  scene: Id;
  /** The id of a layer of the same scene; empty while none is chosen. */
  layer: Id;
  cutout: CutOut;
  mesh: MeshValue;
  growth: GrowthValue;
  strokes: readonly BrushStroke[];
}
export type ValueKind = keyof ValueTypes;
export type Value = ValueTypes[ValueKind];

export type Ease =
  | { readonly kind: 'linear' }
  | { readonly kind: 'hold' }
  /** CSS's cubic-bezier(x1, y1, x2, y2): x within 0..1, y free, so that a curve may overshoot. */
  | { readonly kind: 'bezier'; readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number }
  /** CSS's steps(count, jump-...). */
  | { readonly kind: 'steps'; readonly count: number; readonly jump: 'start' | 'end' | 'both' | 'none' }
  /** Swings about its end; damping 0..1. */
  | { readonly kind: 'spring'; readonly bounces: number; readonly damping: number }
  /** Falls onto its end and rebounds, each time to a share of the height before, 0..1. */
  | { readonly kind: 'bounce'; readonly bounces: number; readonly height: number }
  /** Through points of one's own, in rising order of x between 0 and 1. */
  | { readonly kind: 'drawn'; readonly points: readonly DrawnPoint[] };

export interface DrawnPoint {
  readonly x: number;
  readonly y: number;
  readonly corner: boolean;
}
