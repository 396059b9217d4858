import { choice } from '../../document/params';
import { formatKind } from '../types';

/** Constant qualities of VP9, 0 to 63. */
const CRF = { draft: 45, good: 30, best: 16 } as const;

/** VP9 in WebM: 8-bit 4:2:0 with a plane of alpha, BT.709, limited range. */
export const webm = formatKind({
  format: 'webm',
  label: 'WebM video',
  about: 'VP9 video that keeps transparency: for pages and video programs. Takes longer than MP4.',
  extension: 'webm',
  mime: 'video/webm',
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
  transparent: true,
  shownAs: 'video',
  ffmpeg: ({ quality }) => [
    '-vf',
    'scale=in_range=full:out_range=tv:out_color_matrix=bt709:flags=lanczos+accurate_rnd+full_chroma_int,format=yuva420p',
    ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'],
    // Frames that are never shown cannot have alpha.
    ...['-c:v', 'libvpx-vp9', '-auto-alt-ref', '0', '-b:v', '0', '-crf', String(CRF[quality])],
    ...['-deadline', 'good', '-cpu-used', '4', '-row-mt', '1', '-f', 'webm'],
  ],
});
