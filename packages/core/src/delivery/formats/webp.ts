import { switchParam } from '../../document/params';
import { hold, plays, quality, stays } from '../params';
import { formatKind } from '../types';

/** Of libwebp, 0 to 100. */
const QUALITY = { draft: 50, good: 80, best: 95 } as const;

/** Of one frame it is a still picture. */
export const webp = formatKind({
  format: 'webp',
  label: 'WebP',
  about: 'A moving picture of all colours and with soft transparency, small; of one frame it is a still one.',
  extension: 'webp',
  mime: 'image/webp',
  span: 'range',
  params: { quality, lossless: switchParam('Without loss', false), loop: plays, hold, stays },
  transparent: true,
  shownAs: 'image',
  // From RGB the encoder makes its own YUV, that of the format: BT.601 in limited range.
  ffmpeg: ({ quality: q, lossless, loop }) => [
    ...['-c:v', 'libwebp_anim', '-pix_fmt', 'bgra', '-lossless', lossless ? '1' : '0'],
    ...['-quality', String(QUALITY[q]), '-loop', String(loop), '-f', 'webp'],
  ],
});
