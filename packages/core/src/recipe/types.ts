/**
 * What the kinds of card share: sources add outlines or pictures, steps change the outlines above, paints draw them, covers
 * change what is drawn above.
 */
import type { Params, Values } from '../document/params';
import type { Value } from '../document/types';
import type {
  Assets,
  BlendMode,
  Color,
  CutOut,
  Gradient,
  Id,
  Item,
  PictureAsset,
  Point,
  Rate,
} from '../document/types';
import type { Box } from '../geometry/bounds';
import type { Bend } from '../geometry/warp';
import type { Matrix } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import type { Pen } from '../geometry/strokeBox';
import type { Through } from '../geometry/through';
import type { Space } from '../geometry/space';
import type { Copy, TextPart, TextUnit } from '../motion/sampler';
import type { Growing } from '../picture/growth';
import type { Placed } from '../picture/pixels';
import type { PartOfText } from '../type/parts';
import type { Fonts } from '../type/types';

export interface GradientInk {
  readonly style: 'linear' | 'radial' | 'angular';
  readonly gradient: Gradient;
  readonly from: Point;
  readonly to: Point;
  /** How strong the noise in it is, 0..1. */
  readonly grain: number;
}
export type Ink = { readonly style: 'solid'; readonly color: Color } | GradientInk;

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
export interface StrokeMark extends MarkBase, Pen {
  readonly op: 'stroke';
  readonly dashOffset: number;
}
/** What compositing on a surface takes. */
export interface Compositing {
  globalAlpha: number;
  globalCompositeOperation: string;
  fillStyle: unknown;
  fillRect(x: number, y: number, width: number, height: number): void;
}
/**
 * What is done to pixels that have been drawn. It is told how many of the pixels at hand make one of its own, which its
 * lengths are in: of an unevenly stretched picture the mean of both ways. It is done by compositing alone where that can do
 * it, else by filters where a canvas has them, else to the pixels themselves.
 */
export interface Effect {
  /** How far it spreads what is drawn, in its own pixels. */
  readonly reach: number;
  /** The deviation, in its own pixels, of the bell curve by which it softens: what is soft may be drawn smaller and enlarged. */
  readonly softness?: number;
  /** In place, over the first `width` × `height` pixels. */
  readonly draw?: (context: Compositing, width: number, height: number) => void;
  /** As functions of a CSS filter (Filter Effects Module Level 1, 5): what canvases do it by. */
  readonly filter?: (scale: number) => string;
  /**
   * In place, on red, green, blue and alpha from 0 to 255, not multiplied, of `width` × `height` pixels, which its own are placed among.
   */
  readonly pixels?: (data: Uint8ClampedArray, width: number, height: number, at: Placed) => void;
  /** The same where each pixel is changed by itself and keeps its alpha; says whether nothing shows through any. */
  readonly colors?: (data: Uint8ClampedArray) => boolean;
  /** The same as what stands in a filter element of SVG (the same, 9); null where that has no means for it. */
  readonly svg: (scale: number) => string | null;
}
/** Marks that fade, blend, are cut or changed as one picture. */
export interface GroupMark {
  readonly op: 'group';
  readonly marks: readonly Mark[];
  readonly alpha: number;
  /**
   * `plus` adds colours and alpha up (Compositing and Blending Level 1, 9.1.13, lighter); `within` is laid over as it is, and what
   * is in it blends among itself alone (the same, 3.4, isolation).
   */
  readonly blend: BlendMode | 'plus' | 'within';
  /** Whether it stands beside what the layer is handled by, as a shadow does. */
  readonly aside?: true;
  /** What is left of it, in order. */
  readonly cuts?: readonly Cut[];
  /** `scale` of the mark's pixels make one of the effect's own, and its x axis is turned by `turn` radians in them. */
  readonly effect?: { readonly by: Effect; readonly scale: number; readonly origin: Point; readonly turn: number };
  /** From the pixels of its marks to those that it stands in: its picture is mapped. There is no effect on it as well. */
  readonly bend?: Bend;
  /** Of what brings planes of its own into the depth around it: those, back to front in their stack. Without depth its marks show. */
  readonly planes?: readonly Plane[];
}
/** What a plane shows where it is seen from behind. */
export interface Back {
  readonly back: 'shown' | 'hidden' | 'colored';
  readonly backColor: Color;
}
/** Marks in a plane of their own in space. */
export interface Plane {
  /** From their pixels to where they are. */
  readonly space: Space;
  readonly marks: readonly Mark[];
  readonly back: Back | null;
  /** Whether the light of the scene shades it. */
  readonly lit: boolean;
  /** How they are laid over what is behind them. */
  readonly alpha: number;
  readonly blend: BlendMode;
}
/**
 * How an area joins those before it. Where it is the first, what is added or shown shows alone, and what is hidden or
 * excluded is missing from the whole picture.
 */
export type CutMode = 'add' | 'hide' | 'show' | 'exclude';
interface CutBase {
  readonly mode: CutMode;
  /** Whether all that is outside is meant. */
  readonly inverted: boolean;
  /** How much of it counts, 0..1. */
  readonly strength: number;
}
/** What is inside of outlines, by the nonzero rule. */
export interface AreaCut extends CutBase {
  readonly outlines: readonly Outline[];
  readonly matrix: Matrix;
  /** How far its edge fades to each side, in its own pixels, each of which `scale` of the mark's make. */
  readonly feather: number;
  readonly scale: number;
  /** Whether edges that stand along the pixels of the target lie between them: areas that meet neither overlap there nor leave a seam. */
  readonly crisp: boolean;
}
/** What another picture covers, by how opaque it is. */
export interface PictureCut extends CutBase {
  readonly marks: readonly Mark[];
}
/** How something grows through what marks draw: the same object while that is the same growth. */
export interface Growth extends Growing {
  /** Lengths are in their pixels. */
  readonly through: readonly Mark[];
}
/** What something that grows has come to. */
export interface GrowthCut extends CutBase {
  readonly growth: Growth;
  /** The share of it that has come, 0..1. */
  readonly shown: number;
  /** How far its edge fades, in its own pixels. */
  readonly soft: number;
  readonly matrix: Matrix;
}
/** What decides where marks show. */
export type Cut = AreaCut | PictureCut | GrowthCut;
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

/** A number that a shape stands for, and where it does. */
export interface Datum {
  readonly number: number;
  /** Of the sum of all, 0..1. */
  readonly share: number;
  readonly name: string;
  /** How far it has grown: 0 not at all, 1 all of it. */
  readonly grown: number;
  /** Where it begins and ends, as a column at its base line and at its top, and the way from it, of length 1. */
  readonly foot: Point;
  readonly end: Point;
  readonly away: Point;
}

/** Outlines that belong together, as the two of a letter o: what one source gives, one of several, or one copy of it. */
export interface Shape {
  readonly outlines: readonly Outline[];
  /** How strongly paints below draw it: a repeater's copies fade. */
  readonly alpha: number;
  /** What it stands for, where that is numbers: a line for all of those that it goes through. */
  readonly data?: readonly Datum[];
}

/** What the cards so far have given: outlines for the cards below, and marks already drawn. */
export interface Flow {
  readonly shapes: readonly Shape[];
  readonly marks: readonly Mark[];
}

export const EMPTY: Flow = { shapes: [], marks: [] };

/** What another scene shows at a frame of its own. */
export interface Shown {
  readonly width: number;
  readonly height: number;
  readonly background: Color | null;
  /** What it took to make and takes to draw: see room.ts. */
  readonly work: number;
  /** Its picture. It and the planes are made when they are asked for. */
  readonly picture: () => { readonly marks: readonly Mark[] } & Told;
  /** The same as planes in its space, what has no depth in the plane of the scene. */
  readonly deep: () => { readonly planes: readonly Plane[] } & Told;
}
interface Told {
  /** What is wrong with it, each as what is said of a layer. */
  readonly told: readonly string[];
}
/** Another scene, as a card plays it. */
export interface Playable {
  readonly rate: Rate;
  /** In frames. */
  readonly length: number;
  /** The knobs that can be set from outside. */
  readonly knobs: { readonly has: (knob: Id) => boolean };
  readonly at: (frame: number, settings: Settings) => Shown;
}
/** Values for knobs of a scene that is played, by the ids of the knobs. */
export interface Settings {
  readonly [knob: Id]: Value;
}
/** What cards are handed: they never reach for it themselves. */
export interface Supplies {
  readonly fonts: Fonts;
  readonly assets: Assets;
  /** Of the scene that the recipe is in. */
  readonly rate: Rate;
  /** Another scene by its id, or why it cannot be played: what is said of a layer. */
  readonly play: (scene: Id) => Playable | string;
  /** Stand for all that `play` gives: while they are the same objects, it gives the same. */
  readonly playing: readonly unknown[];
}

interface CardKind<P extends Params> {
  readonly kind: string;
  readonly label: string;
  readonly params: P;
  /** One line for the card, from its values; `nameOf` says what a file or a scene is called. */
  readonly summary: (values: Values<P>, nameOf: (id: Id) => string) => string;
}
/** Adds outlines, for the steps and paints below. */
export interface OutlineSource<P extends Params = Params> extends CardKind<P> {
  readonly role: 'source';
  /** All of them, or those of a part of its text. */
  readonly outlines: (values: Values<P>, supplies: Supplies, part?: Exclude<TextPart, 'rest'>) => readonly Outline[];
  /** The same as several shapes, each its own for what is below; `earlier` gives its values so many frames before. */
  readonly shapes?: (values: Values<P>, earlier: (frames: number) => Values<P>) => readonly Shape[];
  /** Of a text: its parts in reading order, in the pixels of the card. */
  readonly parts?: (values: Values<P>, supplies: Supplies, by: TextUnit) => readonly PartOfText[];
}
/** What a source of pictures may ask for. */
export interface Asking {
  readonly frame: number;
  readonly supplies: Supplies;
  /** What the settings in its card say. */
  readonly settings: Settings;
  /** What the layers behind show, in the pixels of this card. */
  readonly behind: (background: boolean) => readonly Mark[];
  /** Takes room for so much work; false where there is none left. */
  readonly take: (work: number) => boolean;
  /** Says of the layer what is wrong with it. */
  readonly tell: (message: string) => void;
}
/** Adds what is drawn already. */
export interface PictureSource<P extends Params = Params> extends CardKind<P> {
  readonly role: 'source';
  readonly marks: (values: Values<P>, at: Asking) => readonly Mark[];
  /** Whether it plays another scene: it shows something else from frame to frame while its values stay, and settings stand in it. */
  readonly plays?: true;
  /** Whether it asks for what lies behind. */
  readonly behind?: true;
}
export type SourceKind = OutlineSource | PictureSource;
/** Room for what cards make of outlines. */
export interface AreaRoom {
  /** Takes room for so many more shapes, and for so much work; false where there is none left, for good. */
  readonly take: (count: number, work: number) => boolean;
  /** Takes room for work with areas; false where it is more than they may take, and they are left as they are. */
  readonly takeAreas: (work: number) => boolean;
}
/** A part of a text that stands above: where its middle, that of its base line and that of its word are, and how wide it is. */
export interface PlacedPart extends Pick<
  PartOfText,
  'text' | 'from' | 'to' | 'base' | 'width' | 'space' | 'rise' | 'fall' | 'word'
> {
  readonly part: Exclude<TextPart, 'rest'>;
  readonly middle: Point;
}
/** Those of a unit as a step is to show them. While nothing about them changes, `all` is the same object. */
export interface AskedParts {
  readonly all: readonly PlacedPart[];
  /** Those that are asked of the step itself: the place of each among all, and what to ask for. */
  readonly asked: readonly { readonly order: number; readonly part: PlacedPart['part'] }[];
}
/** What a step may ask of the cards above it. */
export interface Above extends AreaRoom {
  /** The part that is asked of the step; missing for all. */
  readonly part?: TextPart;
  /** Those of the scene, for what it writes. */
  readonly fonts: Fonts;
  /** The parts of all texts above at its frame, in reading order. */
  readonly texts: (by: TextUnit) => AskedParts;
  readonly frame: number;
  /** What its own recipe gives. */
  readonly own: Flow;
  /** The flow at any frame; of one copy of a repeater's. */
  readonly at: (frame: number, copy?: Copy) => Flow;
  /** From the pixels of what is above at a frame to its pixels now, as the layer has moved in between. */
  readonly since: (frame: number) => Through;
}
export interface StepKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'step';
  /** `at` gives its values at other frames, and for other copies. */
  readonly apply: (above: Above, values: Values<P>, at: (frame: number, copy?: Copy) => Values<P>) => Flow;
  /** Whether it asks for copies with numbers of their own. */
  readonly copies?: boolean;
  /** Whether it gives something else from frame to frame while its values stay and nothing above it moves. */
  readonly byFrame?: (values: Values<P>) => boolean;
  /** Whether it is meant for what is drawn, so that a new one goes below the paints. */
  readonly onDrawn?: true;
  /** Whether what it gives stands in the place of what is painted above: a new one goes below that, with a paint of its own. */
  readonly repainted?: true;
  /** Whether it has a recipe of its own. */
  readonly holds?: true;
  /** A card that a new one holds, by the box of what is above. */
  readonly holding?: (box: Box) => { readonly kind: string; readonly values: { readonly [key: string]: Value } };
  /** Where parts of texts stand that it moves, for the steps below; missing where they stay. */
  readonly texts?: (
    above: Pick<Above, 'frame' | 'own'> & { readonly texts: (by: TextUnit) => readonly PlacedPart[] },
    values: Values<P>,
    at: (frame: number, copy?: Copy) => Values<P>,
    by: TextUnit,
  ) => readonly PlacedPart[];
  /** As of a cover. */
  readonly example?: Partial<Values<P>>;
}
export interface PaintKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'paint';
  /** `take` takes room for work besides what the mark itself costs; false where there is none left. */
  readonly mark: (
    outlines: readonly Outline[],
    alpha: number,
    values: Values<P>,
    take: (work: number) => boolean,
  ) => Mark | null;
  /** Where each shape is painted otherwise: the values for one of so many. */
  readonly each?: (values: Values<P>) => ((order: number, count: number) => Values<P>) | null;
}
/** What a cover may ask for besides what is above it. */
export interface Covering {
  /** What its own recipe gives. */
  readonly own: Flow;
  /** Whether the card above is of the same kind: what that one made of the marks can be gone on with. */
  readonly goesOn: boolean;
  readonly frame: number;
  readonly room: AreaRoom;
  /** What another layer of the scene shows, in the pixels of what is above; null where there is none, which is told. */
  readonly shown: (layer: Id) => readonly Mark[] | null;
}
/** Changes the marks above it. */
export interface CoverKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'cover';
  /** Whether it has a recipe of its own, which it covers by. */
  readonly holds?: true;
  /** Whether it shows once more what is above it: many of them would do so without end, so it takes room for that. */
  readonly again?: true;
  /** Values that show what it does, where those that it comes with change nothing. */
  readonly example?: Partial<Values<P>>;
  /** Values with which a new one leaves what is above as it is: by the box of that. */
  readonly fitting?: (box: Box) => Partial<Values<P>>;
  /** Whether it does something else from frame to frame while its values stay. */
  readonly byFrame?: (values: Values<P>) => boolean;
  readonly cover: (marks: readonly Mark[], values: Values<P>, by: Covering) => readonly Mark[];
}
/** A recipe inside a recipe. */
export interface GroupKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'group';
  /** Whether its parameters place what stands in it: see FLAT_PLACE. */
  readonly places?: boolean;
  /** Whether what it shows depends on the frame, its parameters standing still. */
  readonly byFrame?: (values: Values<P>) => boolean;
  /** Which of the cards in it, that are on, shows at a frame; null for none. Missing where all show. */
  readonly picking?: (cards: readonly Item[]) => (values: Values<P>, frame: number) => number | null;
}
/** Draws nothing: a value for a knob of the scene that the card around it plays. */
export interface SettingKind<P extends Params = Params> extends CardKind<P> {
  readonly role: 'setting';
}
export type Kind = SourceKind | StepKind | PaintKind | CoverKind | GroupKind | SettingKind;

/** Whether cards stand in it. */
export const holdsCards = (kind: Kind): boolean =>
  kind.role === 'group' || ((kind.role === 'cover' || kind.role === 'step') && !!kind.holds);
/** Whether settings stand in it. */
export const holdsSettings = (kind: Kind): boolean => kind.role === 'source' && 'plays' in kind && !!kind.plays;

export const source = <P extends Params>(kind: Omit<OutlineSource<P>, 'role'>) =>
  ({ role: 'source', ...kind }) as const;
export const pictureSource = <P extends Params>(kind: Omit<PictureSource<P>, 'role'>) =>
  ({ role: 'source', ...kind }) as const;
export const step = <P extends Params>(kind: Omit<StepKind<P>, 'role'>) => ({ role: 'step', ...kind }) as const;
export const paint = <P extends Params>(kind: Omit<PaintKind<P>, 'role'>) => ({ role: 'paint', ...kind }) as const;
export const cover = <P extends Params>(kind: Omit<CoverKind<P>, 'role'>) => ({ role: 'cover', ...kind }) as const;

/** A number as a person writes it: two decimals at most. */
export const short = (n: number): string => String(Math.round(n * 100) / 100);
export const shortPercent = (n: number): string => `${short(n * 100)} %`;
