import { type Format, formatOf, type RenderSettings } from '@kite/core/delivery/formats/table';
import { isOpaque } from '@kite/core/delivery/opaque';
import { frames, sheet } from './frames';
import { gif } from './gif';
import { html5 } from './html5';
import { jpeg, png } from './still';
import { animatedSvg, svg } from './svg';
import type { EncodeJob } from './types';
import { video } from './video';

/** The formats that ffmpeg does not make. */
const OWN = { gif, html5, frames, sheet, png, jpeg, svg, 'animated-svg': animatedSvg };

export const encode = (job: EncodeJob): Promise<void> => {
  const { format } = job.settings;
  const { ffmpeg } = formatOf(format);
  if (ffmpeg) return video(job, ffmpeg(job.settings as never, isOpaque(job.scene)));
  // The table's key is the settings' own format, which TypeScript cannot follow through the look-up.
  return (OWN as unknown as { readonly [F in Format]: (job: EncodeJob<RenderSettings>) => Promise<void> })[format](job);
};
