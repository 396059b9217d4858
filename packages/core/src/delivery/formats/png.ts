import { formatKind } from '../types';

export const png = formatKind({
  format: 'png',
  label: 'PNG',
  about: 'One frame as a picture, transparent where the scene is.',
  extension: 'png',
  mime: 'image/png',
  span: 'frame',
  params: {},
  transparent: true,
  shownAs: 'image',
});
