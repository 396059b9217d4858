import { quality } from '../params';
import { formatKind } from '../types';

export const jpeg = formatKind({
  format: 'jpeg',
  label: 'JPEG',
  about: 'One frame as a small picture without transparency: for mails and shops.',
  extension: 'jpg',
  mime: 'image/jpeg',
  span: 'frame',
  params: { quality },
  transparent: false,
  shownAs: 'image',
});

/** Of a JPEG, 0 to 100. */
export const JPEG_QUALITY = { draft: 60, good: 85, best: 95 } as const;
