/** What is looked for before a file leaves: each check a file of its own, listed in table.ts. */
import type { MakeId } from '../document/make';
import type { Edit } from '../document/patches';
import type { Delivery, Id, Project, Scene, Value } from '../document/types';
import type { Box } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import type { Program } from '../scene/program';

/** How strict checks are, where practitioners differ. */
export interface Rules {
  /** Words that are read in a second. */
  readonly wordsPerSecond: number;
  /** The smallest text, as a share of the scene's shorter side. */
  readonly leastText: number;
  /** WCAG 2.2, 1.4.3: of text against what is behind it. */
  readonly contrast: number;
  /** Width of the edge that text stays out of, as a share of each side. */
  readonly edge: number;
}

export const DEFAULT_RULES: Rules = { wordsPerSecond: 3, leastText: 0.03, contrast: 3, edge: 0.04 };

/** Where to look, and how large. */
export interface View {
  readonly width: number;
  readonly height: number;
  /** From the scene's pixels to those that are given. */
  readonly matrix: Matrix;
  /** Some layers alone, on nothing; all of the scene where it is missing. */
  readonly only?: readonly Id[];
}
/** The pixels of a frame: red, green, blue and alpha from 0 to 255, not multiplied. */
export type See = (frame: number, view: View) => Uint8ClampedArray;

/** What is to be said. */
export interface Finding {
  /** The kind of check. */
  readonly check: string;
  /** A whole sentence. */
  readonly message: string;
  readonly scene: Id;
  readonly layer?: Id;
  /** Where it is seen. */
  readonly frame?: number;
  readonly delivery?: Id;
  /** The version of the project in which it is so; missing where it is in the project itself. */
  readonly version?: Id;
  /** What a press would do about it; missing where that is for the person to decide. */
  readonly mend?: string;
  /** What the mend needs to know. */
  readonly value?: Value;
}

/** A text as it is seen, in one run of frames. */
export interface TextSeen {
  /** Those that say it: one, or the parts of a word that was split. */
  readonly layers: readonly Id[];
  /** The first of them, and its card. */
  readonly layer: Id;
  readonly card: Id;
  readonly name: string;
  readonly words: number;
  /** In frames: the first, and the first in which it is not seen any more. */
  readonly from: number;
  readonly to: number;
  /** Seconds in which it is seen, and those of them in which it hardly moves. */
  readonly seen: number;
  readonly still: number;
  /** A frame at which it stands as still and as strong as ever. */
  readonly at: number;
  /** There, in the scene's pixels. */
  readonly box: Box;
  /** Its font size there, in the scene's pixels. */
  readonly size: number;
}

/** A text that the picture's edge cuts whenever it stands still. */
export interface TextCut {
  readonly layer: Id;
  readonly name: string;
  /** A frame at which it does. */
  readonly at: number;
}

export interface Texts {
  readonly seen: readonly TextSeen[];
  readonly cut: readonly TextCut[];
}

/** A scene as checks look at it. What is costly is worked out once, a step at a time. */
export interface Look {
  readonly project: Project;
  /** With the scenes that it nests. */
  readonly scene: Scene;
  readonly program: Program;
  readonly rules: Rules;
  readonly see: See;
  /** Of this scene alone. */
  readonly deliveries: readonly Delivery[];
  /** What the last files of deliveries weigh, in bytes, as far as that is known. */
  readonly weights: ReadonlyMap<Id, number>;
  readonly texts: () => Steps<Texts>;
  /** Every frame, or as many as a heavy scene is looked at, so many pixels wide and high. */
  readonly small: () => Steps<Small>;
}

export interface Small {
  readonly width: number;
  readonly height: number;
  /** How light each pixel is, 0..1: WCAG 2.2, relative luminance. */
  readonly frames: readonly Float32Array[];
}

/** Work in steps between which others may have their turn. */
export type Steps<T> = Generator<void, T>;

export interface CheckKind {
  readonly kind: string;
  /** One line on what it looks for. */
  readonly about: string;
  /** Whether other words or colours, as a version has them, may bring it about. */
  readonly ofVersions?: true;
  readonly find: (look: Look) => Steps<readonly Finding[]>;
  readonly mend?: (finding: Finding, project: Project, makeId: MakeId) => Edit;
}

/** A check that is done in one step. */
export const atOnce = (find: (look: Look) => readonly Finding[]): CheckKind['find'] =>
  function* once(look) {
    return find(look);
  };
