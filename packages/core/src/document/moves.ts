/** Moves and routines as they are kept beside the keyframes that they wrote. */
import type { Color, Ease, Id, Point } from './values';

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
  /** In depth, degrees from the turns about x and y at rest, and pixels farther away; none where they are missing. */
  readonly turnX?: number;
  readonly turnY?: number;
  readonly z?: number;
  /** Share of its stroked outlines that is drawn, 0..1; all of them where it is missing. */
  readonly drawn?: number;
  /** Share of it that is behind its own edge, on the side that it comes from or goes to, 0..1; nothing where it is missing. */
  readonly behind?: number;
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
  /** The layer's trims by which it draws outlines. */
  readonly trims?: readonly Id[];
  /** The layer's wipe by which it slides out from behind its edge. */
  readonly wipe?: Id;
}

/** A move kept under its name. */
export interface SavedMove {
  readonly id: Id;
  readonly move: Move;
}

/** What each kind of step takes for its value. */
export interface StepValues {
  /** Pixels of the layer's parent. */
  move: Point;
  /** Share of the size at rest. */
  grow: number;
  /** Degrees. */
  turn: number;
  /** Degrees about x and y, in depth. */
  turnX: number;
  turnY: number;
  /** Pixels away. */
  away: number;
  /** Share of the opacity at rest, 0..1. */
  fade: number;
  colour: Color;
  /** Share of the outlines that is left, 0..1. */
  trim: number;
}
export const STEP_KINDS = ['move', 'grow', 'turn', 'turnX', 'turnY', 'away', 'fade', 'colour', 'trim'] as const;
export type StepKind = (typeof STEP_KINDS)[number];

export interface RoutineStep<K extends StepKind = StepKind> {
  readonly kind: K;
  readonly value: StepValues[K];
  readonly frames: number;
  /** Frames after the step before has ended; fewer than none overlap it. */
  readonly gap: number;
  readonly ease: Ease;
}

/** Orders of a stagger that ask for nothing but the players' own. */
export const ROUTINE_ORDERS = ['list', 'reversed', 'centre', 'edges', 'random'] as const;
export type RoutineOrder = (typeof ROUTINE_ORDERS)[number];

export interface Routine {
  readonly id: Id;
  readonly name: string;
  readonly steps: readonly RoutineStep[];
  /** The frame at which the first player begins. */
  readonly start: number;
  /** Frames from one player's beginning to the next one's. */
  readonly stagger: number;
  /** Whose turn it is first, by the order of the players. */
  readonly order: RoutineOrder;
  /** Of the order at random. */
  readonly seed: number;
  /** How many times as fast all of it goes as the frames of its steps say. */
  readonly speed: number;
  /** How often the steps are gone through. */
  readonly rounds: number;
  /** Whether it goes on round after round, however many there are: what moves or turns goes on from where it is, the rest begins anew. */
  readonly forever: boolean;
  /** Whether every second round goes backwards. */
  readonly pingpong: boolean;
  /** The layers that play it, in the order in which they begin. */
  readonly players: readonly Id[];
}
