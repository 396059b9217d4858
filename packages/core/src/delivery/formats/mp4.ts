import { choice } from '../../document/params';
import { formatKind } from '../types';

/** Constant rate factors of x264. */
const CRF = { draft: 28, good: 18, best: 12 } as const;

/** H.264 in MP4: 8-bit 4:2:0, BT.709, limited range, tagged as such, so that players show the colours that were drawn. */
export const mp4 = formatKind({
  format: 'mp4',
  label: 'MP4 video',
  about: 'H.264 video that plays everywhere: web, presentations, phones.',
  extension: 'mp4',
  mime: 'video/mp4',
  span: 'range',
  params: {
    quality: choice(
      'Quality',
      [
        { value: 'draft', label: 'Draft, small' },
        { value: 'good', label: 'Good' },
        { value: 'best', label: 'Best, large' },
      ],
      'good',
    ),
  },
  transparent: false,
  even: true,
  shownAs: 'video',
  ffmpeg: ({ quality }) => [
    '-vf',
    'scale=in_range=full:out_range=tv:out_color_matrix=bt709:flags=lanczos+accurate_rnd+full_chroma_int,format=yuv420p',
    ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', String(CRF[quality])],
    ...['-movflags', '+faststart', '-f', 'mp4'],
  ],
});
