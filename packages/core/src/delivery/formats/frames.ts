import { choice } from '../../document/params';
import { formatKind } from '../types';

export const frames = formatKind({
  format: 'frames',
  label: 'Frames',
  about: 'Every frame as a picture of its own, numbered, in a zip: for programs that take nothing else.',
  extension: 'zip',
  mime: 'application/zip',
  span: 'range',
  params: {
    as: choice(
      'Each as',
      [
        { value: 'png', label: 'PNG' },
        { value: 'jpeg', label: 'JPEG' },
      ],
      'png',
    ),
  },
  transparent: ({ as }) => as === 'png',
  shownAs: 'file',
});

/** What a frame is called, so that names sort as frames do. */
export const frameName = (i: number, count: number, extension: string): string =>
  `frame-${String(i + 1).padStart(Math.max(4, String(count).length), '0')}.${extension}`;
