import {
  choice,
  FIRST_FONT,
  font,
  MOST_LETTERS,
  number,
  percent,
  point,
  px,
  text as textParam,
  type Values,
} from '../../document/params';
import { glyphOutlines, layoutText, type TextLayout } from '../../type/layout';
import type { Face, Fonts } from '../../type/types';
import { translation } from '../../geometry/matrix';
import { transformed } from '../../geometry/outline';
import { source } from '../types';

const BOX = ['frame', 'box'] as const;

const PARAMS = {
  text: textParam('Text', 'Night Tram', { most: MOST_LETTERS, lines: 'many' }),
  font: font('Font', FIRST_FONT),
  size: px('Size', 96, { min: 0.1, max: 5_000, step: 0.5 }),
  tracking: number('Tracking', 0, { min: -1_000, max: 10_000 }),
  leading: percent('Leading', 1.2, { min: 0, max: 10 }),
  align: choice(
    'Align',
    [
      { value: 'left', label: 'Left' },
      { value: 'center', label: 'Centre' },
      { value: 'right', label: 'Right' },
      { value: 'justify', label: 'Justify' },
    ],
    'center',
  ),
  letters: choice(
    'Letters',
    [
      { value: 'as-typed', label: 'As typed' },
      { value: 'upper', label: 'Upper' },
      { value: 'lower', label: 'Lower' },
    ],
    'as-typed',
  ),
  pairs: textParam('Pairs', '', { most: 2_000, lines: 'one' }),
  frame: choice(
    'Lines',
    [
      { value: 'point', label: 'As typed' },
      { value: 'box', label: 'In a box' },
    ],
    'point',
  ),
  width: px('Width', 600, { min: 1, when: BOX }),
  height: px('Height', 200, { min: 1, when: BOX }),
  stand: choice(
    'Stands',
    [
      { value: 'top', label: 'Top' },
      { value: 'middle', label: 'Middle' },
      { value: 'bottom', label: 'Bottom' },
    ],
    'top',
    { when: BOX },
  ),
  place: point('Place', [0, 0]),
} as const;
export type TextValues = Values<typeof PARAMS>;

/** Text laid out, how far it is moved down to stand in its box, and its face; null until the font is here. */
export const textLayout = (
  v: TextValues,
  fonts: Fonts,
): { readonly layout: TextLayout; readonly down: number; readonly face: Face } | null => {
  const found = fonts.find(v.font);
  if (!found) return null;
  const layout = layoutText(found.face, { ...v, wrap: v.frame === 'box' ? v.width : null });
  if (v.frame === 'point') return { layout, down: 0, face: found.face };
  const used = layout.ascent + (layout.lines.at(-1)?.baseline ?? 0) + layout.descent;
  const spare = v.height - used;
  const down = -v.height / 2 + layout.ascent + (v.stand === 'top' ? 0 : v.stand === 'middle' ? spare / 2 : spare);
  return { layout, down, face: found.face };
};

/** Words as the outlines of their letters. A box has its middle at its place, point text its first baseline. */
export const text = source({
  kind: 'text',
  label: 'Text',
  params: PARAMS,
  summary: (v) => `“${v.text.replaceAll('\n', ' ')}”`,
  outlines: (v, { fonts }) => {
    const laid = textLayout(v, fonts);
    if (!laid) return [];
    const outlines = glyphOutlines(laid.face, v.size, laid.layout.glyphs);
    const [x, y] = [v.place[0], v.place[1] + laid.down];
    return x === 0 && y === 0 ? outlines : outlines.map((o) => transformed(translation(x, y), o));
  },
});
