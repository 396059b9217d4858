import { choice, number } from '../../document/params';
import { framesPerSecond } from '../../time/rate';
import { bt709 } from '../ffmpeg';
import { budget, quality } from '../params';
import { formatKind } from '../types';

/** Constant rate factors of x264. */
const CRF = { draft: 28, good: 18, best: 12 } as const;

/** A mean of so many kbit/s, and twice as many at the most. */
const atRate = (bitrate: number): readonly string[] => [
  ...['-b:v', `${bitrate}k`, '-maxrate', `${2 * bitrate}k`, '-bufsize', `${4 * bitrate}k`],
];

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
    bitrate: number('Bit rate', 0, { min: 0, max: 500_000, whole: true, hint: 'kbit/s; 0 is by quality' }),
    budget: budget('Weight at most', 0),
  },
  notes: (_scene, { colors }) =>
    colors === 'full'
      ? ['Colours at full size keep thin coloured lines; phones and some browsers do not play them.']
      : [],
  transparent: false,
  even: true,
  // Bits by the second that the budget allows, less and less of them, since the encoder meets a rate nearly.
  lighter: ({ budget: kilobytes }, { frames, rate }) => {
    const most = (kilobytes * 1024 * 8) / 1000 / (frames.length / framesPerSecond(rate));
    const rates = [0.95, 0.85, 0.7, 0.5, 0.35, 0.2].map((share) => Math.max(1, Math.floor(most * share)));
    return [
      ...rates.map((bitrate) => ({ says: `${bitrate} kbit/s`, settings: { bitrate } })),
      ...[0.5, 0.25].map((scale) => ({
        says: `${rates[3]} kbit/s, at ${scale * 100} %`,
        settings: { bitrate: rates[3] as number, scale },
      })),
    ];
  },
  shownAs: 'video',
  ffmpeg: (settings) => [
    ...bt709(settings.colors === 'full' ? 'yuv444p' : 'yuv420p'),
    ...['-c:v', 'libx264', '-preset', 'veryfast'],
    ...(settings.bitrate > 0 ? atRate(settings.bitrate) : ['-crf', String(CRF[settings.quality])]),
    ...['-movflags', '+faststart', '-f', 'mp4'],
  ],
});
