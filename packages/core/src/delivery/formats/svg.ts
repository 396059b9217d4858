import { formatKind } from '../types';

export const svg = formatKind({
  format: 'svg',
  label: 'SVG',
  about: 'One frame as paths that other programs can edit: text as outlines, pictures inside.',
  extension: 'svg',
  mime: 'image/svg+xml',
  span: 'frame',
  params: {},
  transparent: true,
  shownAs: 'image',
});
