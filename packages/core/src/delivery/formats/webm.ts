import { bt709 } from '../ffmpeg';
import { quality } from '../params';
import { formatKind } from '../types';

/** Constant qualities of VP9, 0 to 63. */
const CRF = { draft: 45, good: 30, best: 16 } as const;

/** VP9 in WebM: 8-bit 4:2:0, with a plane of alpha where something shows through. */
export const webm = formatKind({
  format: 'webm',
  label: 'WebM video',
  about: 'VP9 video that keeps transparency: for pages and video programs. Takes longer than MP4.',
  extension: 'webm',
  mime: 'video/webm',
  span: 'range',
  params: { quality },
  transparent: true,
  shownAs: 'video',
  ffmpeg: (settings, opaque) => [
    ...bt709(opaque ? 'yuv420p' : 'yuva420p'),
    // Frames that are never shown cannot have alpha.
    ...['-c:v', 'libvpx-vp9', '-auto-alt-ref', '0', '-b:v', '0', '-crf', String(CRF[settings.quality])],
    ...['-deadline', 'good', '-cpu-used', '4', '-row-mt', '1', '-f', 'webm'],
  ],
});
