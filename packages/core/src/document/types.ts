/**
 * The document: plain immutable JSON. Collections are maps by id beside an order list, so that a
 * patch names what it changes and never where it happens to stand.
 *
 * Units: pixels, degrees (clockwise, never wrapped), frames, fractions 0..1 for percentages.
 * y points down. Colours are sRGB hex, `#RRGGBB` or `#RRGGBBAA`.
 */
import type { AppliedMove, Routine, SavedMove } from './moves';
import type { Poses } from './poses';
import type { Color, Ease, Id, Point, Value } from './values';

export type * from './moves';
export type * from './values';

export interface Keyframe {
  /** An integer frame of the scene. */
  readonly frame: number;
  readonly value: Value;
  /** Of a colour: the swatch that it is taken from, and follows. */
  readonly swatch?: Id;
  /** The ease of the span from this keyframe to the next. */
  readonly ease: Ease;
  /** Of a point: the Bézier handles of its motion path, relative to the value. Without any the path is straight. */
  readonly handles?: PathHandles;
}

/** Where a motion path comes from and where it goes, in the units of its point. */
export type PathHandles = readonly [inX: number, inY: number, outX: number, outY: number];

/** What a property does outside its keyframes. */
export const BEYOND = ['hold', 'cycle', 'pingpong', 'continue', 'offset'] as const;
/** `offset` cycles from where the last turn ended. */
export type Beyond = (typeof BEYOND)[number];

export interface StillProperty {
  readonly value: Value;
  /** Of a colour: the swatch that it is taken from, and follows. */
  readonly swatch?: Id;
}
export interface KeyedProperty {
  /** At least one, in rising order of frame, no two at one frame. */
  readonly keys: readonly Keyframe[];
  readonly before?: Beyond;
  readonly after?: Beyond;
  /** Of a point: one pace along the whole motion path, under the first keyframe's ease; those between give the way alone. */
  readonly even?: true;
}
/** A property of one curve, or none. */
export type CurveProperty = StillProperty | KeyedProperty;
/** A point whose x and y have keyframes of their own. */
export interface ApartProperty {
  readonly parts: readonly [x: CurveProperty, y: CurveProperty];
}
export type Property = CurveProperty | ApartProperty;
/** A property that is missing has its description's default. */
export type Properties = { readonly [key: string]: Property };

/** What computes a property. One that is off is kept, and its keyframes play. */
export interface Formula {
  /** References are stored by id: `{@layer/key}`, `{@layer/item/key}`. See formula/refs.ts. */
  readonly text: string;
  readonly on: boolean;
}
/** By the key of a property, or by `key.x` and `key.y` for the parts of a point. */
export type Formulas = { readonly [key: string]: Formula };

/** A card of a recipe; what its kind means stands in recipe/table.ts. */
export interface Item {
  readonly id: Id;
  readonly kind: string;
  /** A name of its own, where the kind's label is not enough. */
  readonly name?: string;
  /** A card that is switched off is passed over. */
  readonly on: boolean;
  readonly params: Properties;
  readonly formulas?: Formulas;
  /** The cards of a recipe of its own, in order: of a group or a mask; of a nest the values that it sets inside. */
  readonly children?: readonly Id[];
  /** Of a card with a value for a knob of the scene that a nest plays: the knob. */
  readonly sets?: Id;
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
/** They are called what the standard calls them. */
export const BLENDS = BLEND_MODES.map((value) => ({
  value,
  label: value.charAt(0).toUpperCase() + value.slice(1).replace('-', ' '),
}));

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
  /** Left out of the lists, not of the picture. */
  readonly tucked: boolean;
  readonly hidden: boolean;
  readonly tag: Tag;
  readonly parent: Id | null;
  readonly blend: BlendMode;
  readonly params: Properties;
  readonly formulas?: Formulas;
  /** The moves that wrote keyframes on it, as long as they are not taken away. */
  readonly moves: readonly AppliedMove[];
}
/** Shows whatever its recipe gives: shapes, text, pictures, other scenes. */
export interface DrawingLayer extends LayerBase {
  readonly kind: 'drawing';
  readonly items: { readonly [id: Id]: Item };
  /** The cards at the top level, in the order in which they work. */
  readonly recipe: readonly Id[];
}
export const KNOB_KINDS = [
  'number',
  'percent',
  'angle',
  'point',
  'color',
  'switch',
  'text',
  'font',
  'picture',
] as const;
export type KnobKind = (typeof KNOB_KINDS)[number];

/** A named value of a controller, there to be keyed and to be read by formulas. */
export interface Knob {
  readonly id: Id;
  readonly name: string;
  readonly kind: KnobKind;
  /** The limits of a number, a percentage or an angle, in stored units. */
  readonly min: number;
  readonly max: number;
  /** `value` alone. */
  readonly params: Properties;
  readonly formulas?: Formulas;
}

/** Draws nothing: others are parented to it, and it carries knobs. */
export interface ControllerLayer extends LayerBase {
  readonly kind: 'controller';
  /** Whether what hangs from it shows, fades, moves in time and is listed as one thing with it. */
  readonly group: boolean;
  readonly knobs: { readonly [id: Id]: Knob };
  /** The knobs in the order of their panel. */
  readonly panel: readonly Id[];
}
export type Layer = DrawingLayer | ControllerLayer;

export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/gif'] as const;
interface AssetBase {
  readonly id: Id;
  readonly name: string;
  /** SHA-256 of the file, in hex. */
  readonly sha: string;
  /** Its size. */
  readonly bytes: number;
}
export interface PictureAsset extends AssetBase {
  readonly kind: 'picture';
  readonly type: (typeof PICTURE_TYPES)[number];
  readonly width: number;
  readonly height: number;
}
/** A font of the user's own, as an OpenType file. */
export interface FontAsset extends AssetBase {
  readonly kind: 'font';
  readonly family: string;
  readonly weight: number;
  readonly italic: boolean;
  /** The weights that a variable font has; null for a font of one weight. */
  readonly weights: readonly [least: number, most: number] | null;
}
/** An imported file kept with the project. */
export type Asset = PictureAsset | FontAsset;
export type Assets = { readonly [id: Id]: Asset };

/** A named project colour. */
export interface Swatch {
  readonly id: Id;
  readonly name: string;
  readonly color: Color;
}

/** Frames per second as an exact fraction: 30000/1001. */
export interface Rate {
  readonly num: number;
  readonly den: number;
}

/** From where the depth of a scene is looked at. */
export interface Viewpoint {
  /** Degrees that the width of the scene takes up; 0 for no perspective. */
  readonly angle: number;
  /** What the eye is straight before, in pixels from the middle of the scene. */
  readonly off: Point;
}

/** A light that planes in depth are shaded by, where they are lit. */
export interface Light {
  /** Where it comes from, in degrees: clockwise from above, and how far towards the eye, 90 being straight from there. */
  readonly turn: number;
  readonly tilt: number;
  /** How much darker is what it does not fall on, 0..1. */
  readonly strength: number;
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
  readonly eye: Viewpoint;
  readonly light: Light;
  /** Places of upright and level guides, in pixels. */
  readonly guides: { readonly x: readonly number[]; readonly y: readonly number[] };
  /** In rising order of frame. */
  readonly markers: readonly Marker[];
  readonly routines: readonly Routine[];
  /** Each layer is in one at the most. */
  readonly sets: readonly LayerSet[];
  /** What it was kept as; missing as long as it was not. */
  readonly poses?: Poses;
  /** Only of a scene that was taken out of its project to be drawn: the eases that are kept there. */
  readonly eases?: readonly SavedEase[];
  /** Only of a scene that was taken out of its project to be drawn: the scenes that it nests. */
  readonly nested?: { readonly [id: Id]: Scene };
  /** Only of a scene as a version has it: what is to be laid out once its fonts are there. */
  readonly unsettled?: Unsettled;
}

/** What follows from other words, and needs their fonts: see edits/settling.ts. */
export interface Unsettled {
  /** The sets of words that were split and say something else. */
  readonly words: readonly Id[];
  /** The layers whose moves from outside may not come from there any more. */
  readonly outside: readonly Id[];
}

/** Layers in an order of their own, which formulas know as `order` and `count`. */
export interface LayerSet {
  readonly id: Id;
  readonly name: string;
  /** The lead, then those that follow it. */
  readonly members: readonly Id[];
  readonly word?: SplitWord;
}

/** A text whose parts are layers, and which is changed as one. */
export interface SplitWord {
  readonly by: 'letters' | 'words' | 'lines';
  /** The card that it was, with what lays it out: parts have the rest of it, as font and size, of their own. */
  readonly text: Item;
  /** The layers of its parts, in reading order: members of the set. */
  readonly parts: readonly Id[];
  /** The way in the pixels of what the parts stand in, for one in theirs: the linear part of a matrix. */
  readonly way: readonly [a: number, b: number, c: number, d: number];
}

/** A named frame of a scene. */
export interface Marker {
  readonly id: Id;
  readonly frame: number;
  readonly name: string;
}

/** An ease kept under a name. */
export interface SavedEase {
  readonly id: Id;
  readonly name: string;
  readonly ease: Ease;
}

/** Effects kept under a name, in the order in which they work. */
export interface SavedEffects {
  readonly id: Id;
  readonly name: string;
  /** The layer that they were kept from, which their formulas may read. */
  readonly layer: Id;
  readonly cards: readonly Item[];
}

/** A file that leaves the project, kept under a name: it can be made again as often as what it shows changes. */
export interface Delivery {
  readonly id: Id;
  readonly name: string;
  /** The scenes that it shows, one after another: several are a film. One that was deleted is named by nothing any more. */
  readonly scenes: readonly Id[];
  /** How many frames of the first scene's it takes each to pass into the next; 0 is a cut. */
  readonly fade: number;
  /** What its files are called: see delivery/naming.ts. */
  readonly file: string;
  /** Whether there is a file for each version of the project, or one as the project is. */
  readonly everyVersion: boolean;
  readonly settings: KeptSettings;
}

/** Settings of a render without those that are as the scene has them, so that they follow it: see delivery/kept.ts. */
export interface KeptSettings {
  readonly format: string;
  readonly [key: string]: Value | Rate | null;
}

/** What may be another in each version: words, wherever they stand, a swatch or a picture. What was deleted is named by nothing any more. */
export type VersionColumn = { readonly id: Id; readonly name: string } & (
  | { readonly kind: 'words'; readonly places: readonly PropertyRef[] }
  | { readonly kind: 'swatch'; readonly swatch: Id }
  | { readonly kind: 'picture'; readonly asset: Id }
);

/** A row of the table of versions: what differs in it from the project. */
export interface Version {
  readonly id: Id;
  readonly name: string;
  /** By column: words, a colour, or the id of a picture. A column without one is as the project has it. */
  readonly values: { readonly [column: Id]: string };
}

export interface Versions {
  readonly columns: readonly VersionColumn[];
  readonly rows: readonly Version[];
}

export interface Project {
  readonly version: number;
  readonly id: Id;
  readonly name: string;
  readonly scenes: { readonly [id: Id]: Scene };
  readonly order: readonly Id[];
  readonly assets: Assets;
  readonly swatches: readonly Swatch[];
  readonly eases: readonly SavedEase[];
  readonly moves: readonly SavedMove[];
  readonly effects: readonly SavedEffects[];
  readonly deliveries: readonly Delivery[];
  readonly versions: Versions;
}

/** Where a property stands: on a layer, on a card of its recipe, or on a knob (`item` and the key `value`). */
export interface PropertyRef {
  readonly scene: Id;
  readonly layer: Id;
  readonly item?: Id;
  readonly key: string;
  /** x (0) or y (1) of a point whose parts are apart. */
  readonly part?: 0 | 1;
}

export const isApart = (p: Property | undefined): p is ApartProperty => p !== undefined && 'parts' in p;

export const isKeyed = (p: Property | undefined): p is KeyedProperty => p !== undefined && 'keys' in p;
