import type { RenderSettings } from '@kite/core/delivery/settings';
import { gif } from './gif';
import { html5 } from './html5';
import { mp4 } from './mp4';
import { png } from './png';
import { svg } from './svg';
import type { EncodeJob } from './types';

/** How each format is made. A new one is a file of its own and a line here. */
const ENCODERS = { mp4, gif, html5, png, svg };

// The table's key is the settings' own format, which TypeScript cannot follow through the look-up.
export const encode = (job: EncodeJob): Promise<void> =>
  (ENCODERS[job.settings.format] as unknown as (job: EncodeJob<RenderSettings>) => Promise<void>)(job);
