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
  /** After so many seconds it stops; 0 is never. */
  readonly stop: number;
}

export interface Moment {
  /** Of the scene; between two of them where the rates differ. */
  readonly frame: number;
  /** Whether it stands there for good. */
  readonly over: boolean;
}

/** The frame after so many milliseconds. A banner that has played as often, or as long, as it should stands on its last frame. */
export const momentAt = ({ from, to, rate, loop, stop }: Played, sceneRate: Rate, elapsed: number): Moment => {
  const ratio = framesPerSecond(sceneRate) / framesPerSecond(rate);
  const count = Math.max(1, Math.round((to - from) / ratio));
  const played = Math.floor((elapsed * framesPerSecond(rate)) / 1000 + 1e-6);
  const over = (loop > 0 && played >= count * loop) || (stop > 0 && elapsed >= stop * 1_000);
  return { frame: from + (over ? count - 1 : played % count) * ratio, over };
};

/** Longer between two pictures than this, in milliseconds, the page was asleep. */
const MOST_BETWEEN = 250;

/** The time that a banner has played: it passes from one picture to the next, while the banner can be seen. */
export class Clock {
  private last: number | null = null;

  private played = 0;

  /** Milliseconds played by `now`. */
  at(now: number): number {
    if (this.last !== null) this.played += Math.min(now - this.last, MOST_BETWEEN);
    this.last = now;
    return this.played;
  }

  /** Stands still until it is asked again. */
  rest(): void {
    this.last = null;
  }
}
