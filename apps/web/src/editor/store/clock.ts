/** The playhead, and how it runs. */

/** `through` goes on to the next scene. */
export type Playing = 'loop' | 'once' | 'swing' | 'through';

export interface Clock {
  readonly frame: number;
  readonly playing: boolean;
  readonly how: Playing;
  readonly speed: number;
  /** First frame and the first after it; null is the whole scene. */
  readonly range: readonly [number, number] | null;
  /** Frames drawn in the last second of playing; null while still. */
  readonly drawnRate: number | null;
  /** Whether pictures are drawn at half size while it plays, since it would be late at its own. */
  readonly coarse: boolean;
  readonly autoKey: boolean;
}
/** What is said of how it is drawn while it plays: nothing until that is known. */
export const drawnAs = ({ drawnRate, coarse }: Pick<Clock, 'drawnRate' | 'coarse'>): string => {
  if (drawnRate === null) return '';
  return coarse ? `half size ${Math.round(drawnRate)}/s` : `drawn ${drawnRate.toFixed(1)}/s`;
};

export const clockAt = (frame: number): Clock => ({
  frame,
  playing: false,
  how: 'loop',
  speed: 1,
  range: null,
  drawnRate: null,
  coarse: false,
  autoKey: false,
});
