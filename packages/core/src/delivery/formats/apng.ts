import { rgb } from '../ffmpeg';
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
  ffmpeg: ({ loop }, opaque) => [
    ...['-c:v', 'apng', ...rgb(opaque), '-pred', 'none'],
    ...['-plays', String(loop), '-f', 'apng'],
  ],
});
