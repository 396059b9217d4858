import type { RenderSettings } from '@kite/core/delivery/formats/table';
import type { RenderPlan } from '@kite/core/delivery/types';
import type { Color, Scene } from '@kite/core/document/types';
import type { DrawnFrame } from '../drawPool';
import type { Stock } from '../materials';

export interface EncodeJob<S extends RenderSettings = RenderSettings> {
  readonly scene: Scene;
  readonly stock: Stock;
  readonly settings: S;
  readonly plan: RenderPlan;
  /** What a scene is drawn on that the file has no transparency for. */
  readonly under: Color | null;
  /** The file to write. */
  readonly out: string;
  readonly signal: AbortSignal;
  /** The plan's frames, or those named, in order. */
  readonly frames: (of?: readonly number[]) => AsyncIterable<DrawnFrame>;
  /** To be called once for each frame of the plan that is done. */
  readonly done: () => void;
  /** Tells what a part of the file adds to its weight, in bytes. */
  readonly part: (name: string, bytes: number) => void;
  /** Tells of something that the format could not keep. */
  readonly note: (text: string) => void;
}

export type Encoder<S extends RenderSettings> = (job: EncodeJob<S>) => Promise<void>;
