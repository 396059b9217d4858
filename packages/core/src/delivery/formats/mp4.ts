import { bt709 } from '../ffmpeg';
import { quality } from '../params';
import { formatKind } from '../types';

/** Constant rate factors of x264. */
const CRF = { draft: 28, good: 18, best: 12 } as const;

/** H.264 in MP4: 8-bit 4:2:0. */
export const mp4 = formatKind({
  format: 'mp4',
  label: 'MP4 video',
  about: 'H.264 video that plays everywhere: web, presentations, phones.',
  extension: 'mp4',
  mime: 'video/mp4',
  span: 'range',
  params: { quality },
  transparent: false,
  even: true,
  shownAs: 'video',
  ffmpeg: (settings) => [
    ...bt709('yuv420p'),
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', String(CRF[settings.quality])],
    ...['-movflags', '+faststart', '-f', 'mp4'],
  ],
});
