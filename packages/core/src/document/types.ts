/**
 * The document: plain immutable JSON. Collections are maps by id beside an order list, so that a
 * patch names what it changes and never where it happens to stand.
 *
 * Units: pixels, degrees (clockwise, never wrapped), frames, fractions 0..1 for percentages.
 * y points down. Colours are sRGB hex, `#RRGGBB` or `#RRGGBBAA`.
 */
export type Id = string;
export type Point = readonly [x: number, y: number];
export type Color = string;

export interface GradientStop {
  /** Place along the gradient, 0..1. */
  readonly at: number;
  readonly color: Color;
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
}
export type ValueKind = keyof ValueTypes;
export type Value = ValueTypes[ValueKind];

export type Ease =
  | { readonly kind: 'linear' }
  | { readonly kind: 'hold' }
  /** CSS's cubic-bezier(x1, y1, x2, y2): x within 0..1, y free, so that a curve may overshoot. */
  | { readonly kind: 'bezier'; readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number };

export interface Keyframe {
  /** An integer frame of the scene. */
  readonly frame: number;
  readonly value: Value;
  /** The ease of the span from this keyframe to the next. */
  readonly ease: Ease;
}

/** What a property does outside its keyframes. */
export type Beyond = 'hold' | 'cycle' | 'pingpong' | 'continue';

export interface StillProperty {
  readonly value: Value;
}
export interface KeyedProperty {
  /** At least one, in rising order of frame, no two at one frame. */
  readonly keys: readonly Keyframe[];
  readonly before?: Beyond;
  readonly after?: Beyond;
}
export type Property = StillProperty | KeyedProperty;
/** A property that is missing has its description's default. */
export type Properties = { readonly [key: string]: Property };

/** A card of a recipe; what its kind means stands in recipe/table.ts. */
export interface Item {
  readonly id: Id;
  readonly kind: string;
  /** A name of its own, where the kind's label is not enough. */
  readonly name?: string;
  /** A card that is switched off is passed over. */
  readonly on: boolean;
  readonly params: Properties;
  /** The cards of a group, in order. */
  readonly children?: readonly Id[];
}

export const BLEND_MODES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;
/** W3C Compositing and Blending Level 1, section 9. */
export type BlendMode = (typeof BLEND_MODES)[number];

export const TAGS = ['slate', 'coral', 'amber', 'leaf', 'teal', 'blue', 'violet', 'rose'] as const;
export type Tag = (typeof TAGS)[number];

interface LayerBase {
  readonly id: Id;
  readonly name: string;
  /** First frame in which the layer shows. */
  readonly from: number;
  /** First frame in which it no longer shows. */
  readonly to: number;
  readonly locked: boolean;
  readonly hidden: boolean;
  readonly tag: Tag;
  readonly parent: Id | null;
  readonly blend: BlendMode;
  readonly params: Properties;
}
export interface DrawingLayer extends LayerBase {
  readonly kind: 'drawing';
  readonly items: { readonly [id: Id]: Item };
  /** The cards at the top level, in the order in which they work. */
  readonly recipe: readonly Id[];
}
/** Draws nothing: others are parented to it. */
export interface ControllerLayer extends LayerBase {
  readonly kind: 'controller';
}
export type Layer = DrawingLayer | ControllerLayer;

/** Frames per second as an exact fraction: 30000/1001. */
export interface Rate {
  readonly num: number;
  readonly den: number;
}

export interface Scene {
  readonly id: Id;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly rate: Rate;
  /** In frames. */
  readonly length: number;
  /** null is transparent. */
  readonly background: Color | null;
  readonly layers: { readonly [id: Id]: Layer };
  /** Front to back. */
  readonly order: readonly Id[];
  /** The frame that stands for the scene in pictures of it. */
  readonly poster: number;
}

export interface Project {
  readonly version: number;
  readonly id: Id;
  readonly name: string;
  readonly scenes: { readonly [id: Id]: Scene };
  readonly order: readonly Id[];
}

/** Where a property stands: on a layer, or on a card of its recipe. */
export interface PropertyRef {
  readonly scene: Id;
  readonly layer: Id;
  readonly item?: Id;
  readonly key: string;
}

export const isKeyed = (p: Property | undefined): p is KeyedProperty => p !== undefined && 'keys' in p;
