import { hold, plays, stays } from '../params';
import { formatKind } from '../types';

export const animatedSvg = formatKind({
  format: 'animated-svg',
  label: 'Animated SVG',
  about:
    'One file of paths that moves by itself, without a script: sharp at any size. Text as outlines, pictures inside.',
  extension: 'svg',
  mime: 'image/svg+xml',
  span: 'range',
  params: { loop: plays, hold, stays },
  transparent: true,
  shownAs: 'image',
});
