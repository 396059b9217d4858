import { lastMade } from '../../document/remembered';
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
import type { Point } from '../../document/types';
import type { TextUnit } from '../../motion/sampler';
import { fittedSize } from '../../type/fitting';
import { glyphOutlines, heightOf, layoutText, type TextLayout } from '../../type/layout';
import { type PartOfText, partsOfText } from '../../type/parts';
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
  features: textParam('Features', '', { most: 400, lines: 'one', form: 'features' }),
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
  /** Whether the size gives way to the box. */
  fit: choice(
    'Fit',
    [
      { value: 'none', label: 'No' },
      { value: 'shrink', label: 'Shrink' },
      { value: 'fill', label: 'Fill' },
    ],
    'none',
    { when: BOX },
  ),
  place: point('Place', [0, 0]),
} as const;
export type TextValues = Values<typeof PARAMS>;

interface LaidText {
  readonly layout: TextLayout;
  /** Its own, or the one that fits its box. */
  readonly size: number;
  /** How far it is moved down to stand in its box. */
  readonly down: number;
  readonly face: Face;
  readonly parts: (by: TextUnit) => readonly PartOfText[];
}

const laidOut = (v: TextValues, face: Face): LaidText => {
  const wrap = v.frame === 'box' ? v.width : null;
  const size = v.fit === 'none' || wrap === null ? v.size : fittedSize(face, { ...v, wrap });
  const layout = layoutText(face, { ...v, size, wrap });
  const spare = v.height - heightOf(layout);
  const stands = v.stand === 'top' ? 0 : v.stand === 'middle' ? spare / 2 : spare;
  const down = v.frame === 'point' ? 0 : -v.height / 2 + layout.ascent + stands;
  const known = new Map<TextUnit, readonly PartOfText[]>();
  const at: Point = [v.place[0], v.place[1] + down];
  return {
    layout,
    size,
    down,
    face,
    parts: (by) => {
      let parts = known.get(by);
      if (!parts) known.set(by, (parts = partsOfText(v.text, { layout, face, size }, at, by)));
      return parts;
    },
  };
};

/** What was laid out last in a face: its letters are asked for one by one, with the same values each time. */
const laidLast = lastMade<Face, LaidText>();

/** Text laid out; null until its font is here. */
export const textLayout = (v: TextValues, fonts: Fonts): LaidText | null => {
  const face = fonts.find(v.font)?.face;
  if (!face) return null;
  return laidLast(face, Object.values(v), () => laidOut(v, face));
};

/** Whether a text is as large as its box lets it be. */
export const fitsBox = (v: TextValues): boolean => v.frame === 'box' && v.fit !== 'none';

/** The size that a text is set in: its own until its font is here. */
export const sizeOfText = (v: TextValues, fonts: Fonts): number =>
  (fitsBox(v) ? textLayout(v, fonts)?.size : undefined) ?? v.size;

/** The parts of a text in reading order, where they stand; null until the font is here. */
export const textParts = (v: TextValues, fonts: Fonts, by: TextUnit): readonly PartOfText[] | null => {
  const laid = textLayout(v, fonts);
  return laid && laid.parts(by);
};

/** Words as the outlines of their letters. A box has its middle at its place, point text its first baseline. */
export const text = source({
  kind: 'text',
  label: 'Text',
  params: PARAMS,
  summary: (v) => `“${v.text.replaceAll('\n', ' ')}”`,
  outlines: (v, { fonts }, part) => {
    const laid = textLayout(v, fonts);
    if (!laid) return [];
    const glyphs = part ? (textParts(v, fonts, part.by)?.[part.index]?.glyphs ?? []) : laid.layout.glyphs;
    const outlines = glyphOutlines(laid.face, laid.size, glyphs);
    const [x, y] = [v.place[0], v.place[1] + laid.down];
    return x === 0 && y === 0 ? outlines : outlines.map((o) => transformed(translation(x, y), o));
  },
  parts: (v, { fonts }, by) => textParts(v, fonts, by) ?? [],
});
