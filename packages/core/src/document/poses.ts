/** Poses: what a scene shows, kept under names, and the strip of pictures that is made of them. */
import type { Ease, Id, Value } from './values';

/** Values by the key of their property; one that is missing has its description's default. */
export type PosedValues = { readonly [key: string]: Value };

/** A layer in a pose: its place, and its cards or knobs. What came later is in neither. */
export interface LayerPose {
  readonly own: PosedValues;
  readonly parts: { readonly [id: Id]: PosedValues };
}

/** What a scene shows, where, how strongly and in what colours; its words, fonts and pictures are those of the scene. */
export interface ScenePose {
  readonly id: Id;
  readonly name: string;
  /** The frame at which it was kept: what moves by itself is shown as it is there. */
  readonly frame: number;
  readonly layers: { readonly [id: Id]: LayerPose };
}

/** A pose as a picture of the strip, and the pictures that lead from it to the next. */
export interface HeldPose {
  readonly id: Id;
  readonly pose: Id;
  /** Frames that it stays. */
  readonly hold: number;
  /** Pictures between it and the next one. */
  readonly between: number;
  /** Frames that each of those stays. */
  readonly each: number;
}

/** Poses one after another: keyframes are made of it. */
export interface PoseStrip {
  /** The frame at which the first one begins. */
  readonly from: number;
  readonly held: readonly HeldPose[];
  /** How the pictures in between go from one pose to the next. */
  readonly ease: Ease;
  /** Whether it begins anew after the last one, which leads back to the first; else that one stays. */
  readonly loops: boolean;
  /** Whether the scene ends with it. */
  readonly fits: boolean;
}

/** All of a scene's. */
export interface Poses {
  readonly kept: readonly ScenePose[];
  readonly strip: PoseStrip;
}

export const NO_POSES: Poses = {
  kept: [],
  strip: { from: 0, held: [], ease: { kind: 'linear' }, loops: false, fits: true },
};
