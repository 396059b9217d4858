/** What a file will weigh, from a few of its frames: before all of it is rendered. */
import { formatOf, type RenderSettings } from './formats/table';
import type { RangeSettings } from './types';

/** Frames of the file in one sample, and of how many a file is rendered whole. */
const EACH = 16;
const WHOLE = 3 * EACH;
/** Where samples begin, as shares of the file. */
const AT = [0.1, 0.45, 0.75] as const;

export interface Estimate {
  /** What is to be rendered: one frame alone, then spans of `EACH`. */
  readonly samples: readonly RenderSettings[];
  /** Bytes of the whole file, from those of the samples in their order. */
  readonly total: (bytes: readonly number[]) => number;
}

/**
 * Samples of a file of so many frames: each span weighs what begins a file and so much more for each further frame. Null
 * where the whole is rendered as soon: for what is short or still, and for pages, which weigh the same for any length.
 */
export const estimateOf = (settings: RenderSettings, frames: number): Estimate | null => {
  if (!('from' in settings) || formatOf(settings.format).shownAs === 'page' || frames <= WHOLE) return null;
  const { from, to } = settings;
  // By a weight that it is not to pass, the samples would be made as heavy as the whole may be.
  const { budget = 0 } = settings as { readonly budget?: number };
  const span = (first: number, count: number): RenderSettings => {
    const at = (frame: number) => Math.round(from + (frame * (to - from)) / frames);
    const range: Pick<RangeSettings, 'from' | 'to'> = {
      from: at(first),
      to: Math.max(at(first) + 1, at(first + count)),
    };
    return { ...settings, ...range, ...(budget > 0 && { budget: 0 }) };
  };
  const firsts = AT.map((share) => Math.floor(share * frames));
  return {
    samples: [span(firsts[1] as number, 1), ...firsts.map((first) => span(first, EACH))],
    total: ([alone = 0, ...spans]) => {
      const further = spans.reduce((sum, bytes) => sum + Math.max(0, bytes - alone), 0) / (spans.length * (EACH - 1));
      const all = Math.round(alone + further * (frames - 1));
      return budget > 0 ? Math.min(all, budget * 1024) : all;
    },
  };
};
