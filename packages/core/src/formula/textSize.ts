/** How large texts are, for formulas that read it. */
import type { Values } from '../document/params';
import type { Item } from '../document/types';
import { type Computing, reader } from '../motion/reader';
import { text as textKind, textLayout, type TextValues } from '../recipe/sources/text';
import { heightOf } from '../type/layout';
import type { Fonts } from '../type/types';
import type { Computed } from './computed';
import { costOf, type Readable } from './parts';

export type TextSize = readonly [width: number, height: number];

const sizeOf = (values: TextValues, fonts: Fonts): TextSize => {
  const layout = textLayout(values, fonts)?.layout;
  if (!layout || layout.lines.length === 0) return [0, 0];
  const { lines } = layout;
  const left = Math.min(...lines.map((l) => l.left));
  const right = Math.max(...lines.map((l) => l.right));
  return [right - left, heightOf(layout)];
};

/** The size in pixels of a text card's words, from its first line's top to its last line's foot; `computed` is what it has of formulas. */
export const textSizeOf = (
  card: Item,
  computing: Computing | undefined,
  computed: readonly Computed[],
  fonts: Fonts,
): Readable<TextSize> => {
  const values = reader(textKind.params, card.params, computing);
  let still: TextSize | undefined;
  const cost = { moments: 1 };
  const at = (frame: number): TextSize => {
    const of = values.at(frame) as Values<typeof textKind.params> as TextValues;
    cost.moments = 1;
    for (const one of computed) {
      one.at(frame);
      cost.moments = Math.max(cost.moments, costOf(one));
    }
    return sizeOf(of, fonts);
  };
  return { at: values.constant ? (frame) => (still ??= at(frame)) : at, cost };
};
