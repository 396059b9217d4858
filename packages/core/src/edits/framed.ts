/** Texts that are put in a box of their own, or taken out of it, where they stand. */
import { textLayout, type TextValues } from '../recipe/sources/text';
import { heightOf } from '../type/layout';
import type { Fonts } from '../type/types';

/**
 * What a text has to have besides, that its first line stays where it is when it is set in a box, or as it is typed: a box takes up
 * what the text does. Nothing where it is framed so, or its font is not here yet.
 */
export const framed = (v: TextValues, frame: TextValues['frame'], fonts: Fonts): Partial<TextValues> => {
  const laid = frame === v.frame ? null : textLayout(v, fonts);
  if (!laid) return {};
  const { layout, size, down } = laid;
  const [x, y] = v.place;
  if (frame === 'point') {
    const half = v.align === 'right' ? v.width / 2 : v.align === 'center' ? 0 : -v.width / 2;
    return { place: [x + half, y + down], ...(v.fit !== 'none' && { size }) };
  }
  const width = Math.ceil(Math.max(1, ...layout.lines.map((line) => line.width)));
  const height = Math.ceil(heightOf(layout));
  const half = v.align === 'right' ? -width / 2 : v.align === 'center' ? 0 : width / 2;
  const moved = textLayout({ ...v, frame, width, height, fit: 'none' }, fonts)?.down ?? 0;
  return { width, height, place: [x + half, y - moved] };
};
