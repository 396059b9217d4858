/** Moves: ready entrances, exits and emphases that write plain keyframes. */
import type { Ease, Id } from '../document/types';

/** What all moves have. */
interface MoveBase {
  readonly name: string;
  /** How long it takes; of a passage, each of its two quick parts. */
  readonly frames: number;
  readonly ease: Ease;
}

/** Where a layer comes from or goes to, as seen from where it rests. */
interface Away {
  /** Degrees clockwise from the right. */
  readonly angle: number;
  /** Pixels of the layer's parent. */
  readonly distance: number;
  /** As far as it takes to be out of the scene, instead of a distance. */
  readonly outside: boolean;
}

/** Comes from away, or goes there: there it is as opaque, as large and as turned as this says. */
export interface SideMove extends MoveBase, Away {
  readonly kind: 'entrance' | 'exit';
  /** Share of the opacity at rest, 0..1. */
  readonly fade: number;
  /** Share of the size at rest. */
  readonly scale: number;
  /** Degrees from the turn at rest. */
  readonly turn: number;
}

/** Quickly in from one side, a slow drift, quickly out on the other; it lasts as long as its layer. */
export interface PassageMove extends MoveBase, Away {
  readonly kind: 'passage';
  /** Pixels of the slow part. */
  readonly drift: number;
  readonly fade: number;
}

export const EMPHASES = ['pulse', 'shake', 'wobble', 'pop'] as const;
export type Emphasis = (typeof EMPHASES)[number];

/** Draws the eye to a layer that rests. */
export interface EmphasisMove extends MoveBase {
  readonly kind: 'emphasis';
  readonly form: Emphasis;
  /** 0..1. */
  readonly strength: number;
  readonly times: number;
}

export type Move = SideMove | PassageMove | EmphasisMove;

/** A move that was given to a layer; layers that got it at once share its id, and are adjusted at once when selected. */
export interface AppliedMove {
  readonly id: Id;
  readonly move: Move;
  /** Its first and its last frame where it was given. */
  readonly from: number;
  readonly to: number;
  /** How far it takes to be out of the scene, in pixels of the parent. */
  readonly away: number;
}

/** A move kept under its name. */
export interface SavedMove {
  readonly id: Id;
  readonly move: Move;
}
