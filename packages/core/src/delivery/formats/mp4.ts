import { choice } from '../../document/params';
import { bt709 } from '../ffmpeg';
import { quality } from '../params';
import { formatKind } from '../types';

/** Constant rate factors of x264. */
const CRF = { draft: 28, good: 18, best: 12 } as const;

/** H.264 in MP4: 8 bits, 4:2:0 or 4:4:4. */
export const mp4 = formatKind({
  format: 'mp4',
  label: 'MP4 video',
  about: 'H.264 video that plays everywhere: web, presentations, phones.',
  extension: 'mp4',
  mime: 'video/mp4',
  span: 'range',
  params: {
    quality,
    colors: choice(
      'Colours',
      [
        { value: 'half', label: 'At half the size, as players want them' },
        { value: 'full', label: 'At full size (4:4:4)' },
      ],
      'half',
    ),
  },
  notes: (_scene, { colors }) =>
    colors === 'full'
      ? ['Colours at full size keep thin coloured lines; phones and some browsers do not play them.']
      : [],
  transparent: false,
  even: true,
  shownAs: 'video',
  ffmpeg: (settings) => [
    ...bt709(settings.colors === 'full' ? 'yuv444p' : 'yuv420p'),
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', String(CRF[settings.quality])],
    ...['-movflags', '+faststart', '-f', 'mp4'],
  ],
});
