import { choice } from '../../document/params';
import { bt709, rgb } from '../ffmpeg';
import { formatKind } from '../types';

/** What video programs take in with its transparency: ProRes 4444 of 10 bits, or every frame as a PNG, of 8 and without loss. */
export const mov = formatKind({
  format: 'mov',
  label: 'MOV video',
  about: 'Video for editors, with transparency: ProRes 4444, or PNG without any loss. Large; pages do not play it.',
  extension: 'mov',
  mime: 'video/quicktime',
  span: 'range',
  params: {
    codec: choice(
      'Made by',
      [
        { value: 'prores', label: 'ProRes 4444' },
        { value: 'png', label: 'PNG, lossless' },
      ],
      'prores',
    ),
  },
  transparent: true,
  shownAs: 'file',
  // The finest steps, which are what is chosen for anything that is drawn or grained: looking for them takes four times as long.
  ffmpeg: ({ codec }, opaque) => [
    ...(codec === 'png'
      ? ['-c:v', 'png', ...rgb(opaque)]
      : [
          ...bt709(opaque ? 'yuv444p10le' : 'yuva444p10le'),
          ...['-c:v', 'prores_ks', '-profile:v', '4444', '-qscale:v', '1', '-alpha_bits', opaque ? '0' : '16'],
        ]),
    ...['-movflags', '+faststart', '-f', 'mov'],
  ],
});
