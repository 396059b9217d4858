/** What the page and the preview worker say to each other. */
import type { Patch } from '@kite/core/document/patches';
import type { Id, Point } from '@kite/core/document/types';
import type { Matrix } from '@kite/core/geometry/matrix';
import type { Settings } from '@kite/core/recipe/types';
import type { LookedAt } from '@kite/core/scene/otherwise';
import type { Problem } from '@kite/core/scene/program';
import type { Finding } from '@kite/core/proof/types';
import type { FrameRange } from './frameCache';
import type { ProofWish } from './proofing';

/** Layers at other frames, laid over the picture and tinted: those before warm, those after cold. */
export interface Onion {
  readonly before: readonly number[];
  readonly after: readonly number[];
  readonly layers: readonly Id[];
}

/** Another frame to the right of a place across the scene, 0..1. */
export interface Compare {
  readonly frame: number;
  readonly split: number;
}

/** The scene around the nest through which a scene is seen, as it is at a frame. */
export interface Surroundings {
  readonly scene: Id;
  /** The layer that is the nest: it is left out, the scene that is seen stands where it does. */
  readonly layer: Id;
  readonly frame: number;
  /** From its pixels to those of the scene that is seen. */
  readonly matrix: Matrix;
  /** What the nest sets in the scene that is seen. */
  readonly settings: Settings;
}

export interface DrawWish {
  readonly scene: Id;
  readonly frame: number;
  /** In device pixels. */
  readonly width: number;
  readonly height: number;
  readonly view: Matrix;
  /** The picture that comes back has one pixel for so many in a row. */
  readonly shrink: number;
  /** Where the picture goes on the page, in device pixels: given back with it, so that both change at once. */
  readonly at: readonly [x: number, y: number];
  /** Layers shown alone; none shows all. */
  readonly solo: readonly Id[];
  readonly onion: Onion | null;
  readonly compare: Compare | null;
  readonly lookedAt: LookedAt | null;
  readonly around: Surroundings | null;
}

/** What a picture of a scene shows: its poster, one of its poses, or some of its layers at a frame without its background. */
export type Pictured =
  | { readonly what: 'poster' }
  | { readonly what: 'pose'; readonly pose: Id }
  | { readonly what: 'layers'; readonly layers: readonly Id[]; readonly frame: number };

export type PreviewRequest =
  /** The document as JSON: it is read sooner than its objects would be copied. */
  | { readonly kind: 'open'; readonly doc: string }
  /** The frame that is asked for soon: it is evaluated meanwhile. */
  | { readonly kind: 'expect'; readonly scene: Id; readonly frame: number }
  /** `patches` on the kept document: for good, or to look at while a gesture lasts. */
  | { readonly kind: 'commit' | 'try'; readonly patches: readonly Patch[] }
  | ({ readonly kind: 'draw'; readonly id: number } & DrawWish)
  /** A picture of a scene as it is kept, so many device pixels large. */
  | {
      readonly kind: 'picture';
      readonly scene: Id;
      readonly of: Pictured;
      readonly width: number;
      readonly height: number;
    }
  /** Checks of the kept document; null stops those under way. */
  | { readonly kind: 'proof'; readonly wish: ProofWish | null }
  /** The colour of the scene's pixel at a point. */
  | { readonly kind: 'sample'; readonly scene: Id; readonly frame: number; readonly point: Point };

/** `#RRGGBB`, or with alpha where the scene is not opaque there. */
export interface SampleReply {
  readonly sampled: string;
}

/** What checks found in the document as it is kept. */
export interface ProofReply {
  readonly found: readonly Finding[];
}

/** The pictures come in the order in which they were asked for; null for a scene or a pose that is gone. */
export interface PictureReply {
  readonly picture: ImageBitmap | null;
}

export interface PreviewReply {
  readonly at: readonly [x: number, y: number];
  readonly id: number;
  readonly frame: number;
  readonly bitmap: ImageBitmap | null;
  readonly shrink: number;
  readonly problems: readonly Problem[];
  /** What drawing it took. */
  readonly ms: number;
}

/** The frames that need not be drawn again, whenever they are other ones. */
export interface CacheReply {
  readonly cached: readonly FrameRange[];
}

/** Something went wrong that should never: the worker cannot be relied on any more. */
export interface FailureReply {
  readonly failed: string;
}
