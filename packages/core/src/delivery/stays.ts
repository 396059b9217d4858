/** How much longer some frames of a file stay than its rate says. */
import type { RenderPlan } from './types';

/** The settings that say so, as far as a format has them. */
export interface Staying {
  /** Seconds more for the last one. */
  readonly hold?: number;
  /** Frames of the scene and seconds, as a text: `12: 0.5, 40: 1`. */
  readonly stays?: string;
}

/** Seconds more for each frame of the file; a frame of the scene that is not in it is the next one that is. */
export const staying = ({ hold = 0, stays = '' }: Staying, { frames }: Pick<RenderPlan, 'frames'>): number[] => {
  const more = frames.map((_, i) => (i === frames.length - 1 ? hold : 0));
  for (const part of stays.split(',').filter((text) => text.trim() !== '')) {
    const [frame = NaN, seconds = NaN] = part.split(':').map(Number);
    const at = frames.findIndex((own) => own >= frame - 1e-9);
    if (at >= 0) more[at] = (more[at] as number) + seconds;
  }
  return more;
};
