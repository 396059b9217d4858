import { hold, plays, stays } from '../params';
import { formatKind } from '../types';

export const apng = formatKind({
  format: 'apng',
  label: 'Animated PNG',
  about: 'A moving picture of all colours and with soft transparency, without loss: larger than a GIF.',
  extension: 'png',
  mime: 'image/png',
  span: 'range',
  params: { loop: plays, hold, stays },
  transparent: true,
  shownAs: 'image',
  // With alpha on any scene: of a frame it writes what differs from the one before, and nothing is seen through elsewhere.
  ffmpeg: ({ loop }) => ['-c:v', 'apng', '-pix_fmt', 'rgba', '-pred', 'none', '-plays', String(loop), '-f', 'apng'],
});
