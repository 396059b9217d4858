/** Which frame of the scene a banner shows when. */
import type { Rate } from '@kite/core/document/types';
import { framesPerSecond } from '@kite/core/time/rate';

export interface Played {
  /** First frame of the scene and the first after it. */
  readonly from: number;
  readonly to: number;
  /** Of the banner, which may differ from its scene's. */
  readonly rate: Rate;
  /** How often it plays; 0 is for ever. */
  readonly loop: number;
}

export interface Moment {
  /** Of the scene; between two of them where the rates differ. */
  readonly frame: number;
  /** Whether it stands there for good. */
  readonly over: boolean;
}

/** The frame after so many milliseconds. A banner that has played as often as it should stands on its last frame. */
export const momentAt = ({ from, to, rate, loop }: Played, sceneRate: Rate, elapsed: number): Moment => {
  const ratio = framesPerSecond(sceneRate) / framesPerSecond(rate);
  const count = Math.max(1, Math.round((to - from) / ratio));
  const played = Math.floor((elapsed * framesPerSecond(rate)) / 1000 + 1e-6);
  const over = loop > 0 && played >= count * loop;
  return { frame: from + (over ? count - 1 : played % count) * ratio, over };
};
