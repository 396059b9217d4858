/** What a format of file is: described once, for the dialog, the schema, the command line, the plan and the encoder. */
import type { Params, Values } from '../document/params';
import type { Rate, Scene, Value } from '../document/types';
import type { Size } from '../geometry/size';

/** Pixels a side that a picture may have. */
export const MOST_PIXELS = 8_192;

export interface Sized {
  /** Of the scene's size; 1 is the size itself. */
  readonly scale: number;
}
export interface RangeSettings extends Sized {
  /** null is the scene's own. */
  readonly rate: Rate | null;
  /** First frame, and the first that is no longer part of it. */
  readonly from: number;
  readonly to: number;
}
export interface FrameSettings extends Sized {
  readonly frame: number;
}

export interface RenderPlan {
  /** In pixels of the file. */
  readonly width: number;
  readonly height: number;
  /** The scene's part of the picture; a video may be a pixel larger. */
  readonly drawn: Size;
  readonly rate: Rate;
  /** The scene's frame, whole or not, behind each frame of the file. */
  readonly frames: readonly number[];
  /** What the person should know of the result. */
  readonly notes: readonly string[];
}

export interface FormatKind<P extends Params = Params, F extends string = string, S extends Span = Span> {
  readonly format: F;
  readonly label: string;
  /** One line for who chooses it. */
  readonly about: string;
  readonly extension: string;
  readonly mime: string;
  /** What of the scene goes into the file: a range of its frames, or one. */
  readonly span: S;
  /** Its settings besides size, range and rate. */
  readonly params: P;
  /** Those that follow from the scene. */
  readonly fromScene?: (scene: Scene) => Partial<Values<P>>;
  /** Whether it keeps what the scene leaves transparent; else the scene is drawn on its background, or on black. */
  readonly transparent: boolean | ((settings: Values<P>) => boolean);
  /** Sides have to be even numbers of pixels. */
  readonly even?: true;
  /** What there is to say of a rate, and another one where it cannot be kept. */
  readonly rateFor?: (rate: Rate) => { readonly rate: Rate; readonly notes: readonly string[] };
  /** The settings that mean nothing to a scene. */
  readonly idle?: (scene: Scene) => readonly (keyof P & string)[];
  /** What there is to say of a scene in it. */
  readonly notes?: (scene: Scene, settings: Values<P>) => readonly string[];
  /** Throws a RangeError where a plan does not fit into a file. */
  readonly check?: (plan: RenderPlan, settings: Values<P>) => void;
  /** What a browser shows it with; a file is for other programs. */
  readonly shownAs: 'video' | 'image' | 'page' | 'file';
  /** What makes a file lighter that has a budget, the best first; each beside the settings as they are. */
  readonly lighter?: (settings: Values<P>, plan: RenderPlan) => readonly Lighter[];
  /**
   * Of a video: the arguments of ffmpeg between raw RGBA frames and the file, which need no alpha where nothing shows through
   * them. Others have an encoder of their own.
   */
  readonly ffmpeg?: (settings: Values<P>, opaque: boolean) => readonly string[];
}
/** Settings that make a file lighter, and what is said of them. */
export interface Lighter {
  readonly says: string;
  readonly settings: { readonly [key: string]: Value | Rate };
}
export type Span = 'range' | 'frame';

export const formatKind = <P extends Params, const F extends string, const S extends Span>(
  kind: FormatKind<P, F, S>,
): FormatKind<P, F, S> => kind;

/** The settings that a render in a format is asked for with. */
export type SettingsOf<K> =
  K extends FormatKind<infer P, infer F, infer S>
    ? { readonly format: F } & (S extends 'range' ? RangeSettings : FrameSettings) & Values<P>
    : never;

/** A part of a file and what it adds to its weight. */
export interface Part {
  readonly name: string;
  readonly bytes: number;
}

/** What came of a render. */
export interface RenderResult {
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  readonly seconds: number;
  readonly bytes: number;
  /** What the weight is made of, where a file has parts. */
  readonly parts?: readonly Part[];
  readonly notes: readonly string[];
}
