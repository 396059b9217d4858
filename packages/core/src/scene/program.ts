/** What a scene is once it is compiled: everything that is shown of it, at any frame. */
import type { Assets, Color, Id, Item, Point, Scene } from '../document/types';
import type { Params, Values } from '../document/params';
import type { Wiring } from '../formula/wiring';
import type { Matrix } from '../geometry/matrix';
import type { Eye, Space } from '../geometry/space';
import type { Through } from '../geometry/through';
import type { Flow, Mark, Plane, Settings } from '../recipe/types';
import { type Fonts, NO_FONTS } from '../type/types';

export interface Problem {
  readonly layer: Id;
  readonly message: string;
}

/** All that a painter needs: marks back to front with absolute matrices, in pixels of the scene. */
export interface DisplayList {
  readonly width: number;
  readonly height: number;
  readonly background: Color | null;
  readonly marks: readonly Mark[];
  readonly problems: readonly Problem[];
  /** What it took to make and takes to draw: see recipe/room. */
  readonly work: number;
}

/** What scenes draw on. Two of the same fonts and assets had better be one object: programs are kept by it. */
export interface Library {
  readonly assets: Assets;
  readonly fonts: Fonts;
}
export const NO_LIBRARY: Library = { assets: {}, fonts: NO_FONTS };

export interface Program {
  readonly scene: Scene;
  /** What it was compiled with. */
  readonly library: Library;
  /**
   * The picture at any frame, whole or not. Pure: the same list on every machine. `shows` leaves layers
   * out, for painters that keep the rest of a picture while one layer is dragged.
   */
  readonly at: (frame: number, shows?: (layer: Id) => boolean) => DisplayList;
  /** What the picture takes, and what is the matter with it, before it is made. */
  readonly weighedAt: (frame: number) => Pick<DisplayList, 'work' | 'problems'>;
  /** The same as planes in the scene's space, back to front in the stack, not yet seen by an eye. */
  readonly planesAt: (frame: number) => readonly Plane[];
  /**
   * From a layer's own pixels to the scene's, its parents' places included. Of one in depth it is what comes nearest to that
   * about its pivot: handles and edits in the plane go by it.
   */
  readonly matrixAt: (layer: Id, frame: number) => Matrix;
  /** The same exactly, as it is seen. */
  readonly throughAt: (layer: Id, frame: number) => Through;
  /** From the pixels that its position is in to the scene's, as they are seen at its z, or at another. */
  readonly aroundAt: (layer: Id, frame: number, z?: number) => Through;
  /** From a layer's pixels to the scene's space. */
  readonly spaceAt: (layer: Id, frame: number) => Space;
  /** The eye that looks at the scene: that of the front camera, or the scene's own. */
  readonly eyeAt: (frame: number) => Eye;
  /** The camera that is looked through; null for none. */
  readonly cameraAt: (frame: number) => Id | null;
  /** The planes of one layer, its own and those that it brings along, in the scene's space. */
  readonly planesOf: (layer: Id, frame: number) => readonly Plane[];
  /** What an eye sees of the layers that are in depth, those first that others hide. */
  readonly seenBy: (eye: Eye, frame: number) => readonly Mark[];
  /** How far a point of a layer's own pixels lies behind the plane of the scene; null for one without depth. */
  readonly awayAt: (layer: Id, frame: number, at: Point) => number | null;
  /** Whether it shows nothing, since it is seen from behind at a point of its own and its back is hidden. */
  readonly isAway: (layer: Id, frame: number, at: Point) => boolean;
  /** What one layer draws, in its own pixels, hidden or not. */
  readonly marksAt: (layer: Id, frame: number) => readonly Mark[];
  /**
   * What some of a layer's cards give, in the layer's own pixels: those of one list, in their order, and cards that stand in
   * no layer yet.
   */
  readonly flowAt: (layer: Id, cards: readonly Id[], frame: number, others?: readonly Item[]) => Flow;
  /** A card as it is shown; null where there is no such card. */
  readonly cardAt: (layer: Id, card: Id, frame: number) => CardShown | null;
  /** The formulas at work: any property as it is shown. */
  readonly wiring: Wiring;
  readonly problems: readonly Problem[];
}

/** A card at a frame. */
export interface CardShown {
  readonly values: Values<Params>;
  /** From its pixels to the scene's; of one in depth the matrix that comes nearest. */
  readonly matrix: Matrix;
  /** The same exactly, as it is seen. */
  readonly through: Through;
  /** What the settings in it say. */
  readonly settings: Settings;
}
