import type { Color } from './types';

/** What new things are drawn in, in turn: of a middle brightness, so that they are seen on light grounds and on dark ones. */
export const FIRST_COLORS = ['#4F86B8', '#C2714A', '#5F9A6B', '#9A78B4'] as const satisfies readonly Color[];

/** The colour of the next new thing: from the project's own, where it keeps some. */
export const nextColor = (swatches: readonly { readonly color: Color }[], count: number): Color => {
  const own = swatches.map((swatch) => swatch.color);
  const from: readonly Color[] = own.length > 0 ? own : FIRST_COLORS;
  return from[count % from.length] as Color;
};

/** Of a ground in hexadecimal digits: white letters on a dark one, black ones on a light one. */
export const inkOn = (ground: Color | null): Color => {
  const [r = 255, g = 255, b = 255] = [1, 3, 5].map((i) => parseInt((ground ?? '#ffffff').slice(i, i + 2), 16));
  // Rec. 601 luma.
  return 0.299 * r + 0.587 * g + 0.114 * b < 128 ? '#FFFFFF' : '#1A1A1A';
};
