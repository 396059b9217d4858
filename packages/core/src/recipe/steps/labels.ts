import { choice, FIRST_FONT, font, number, percent, px, text, type Values } from '../../document/params';
import type { Point } from '../../document/types';
import { boxOfOutlines } from '../../geometry/bounds';
import { IDENTITY } from '../../geometry/matrix';
import { digits } from '../../type/digits';
import { glyphOutlines, layoutText, type PlacedGlyph, type TextLayout } from '../../type/layout';
import type { Face } from '../../type/types';
import { workOf } from '../room';
import { type Datum, type Shape, step } from '../types';

const OF_NUMBERS = ['written', 'number', 'share'] as const;

const PARAMS = {
  written: choice(
    'Says',
    [
      { value: 'number', label: 'Number' },
      { value: 'share', label: 'Share' },
      { value: 'name', label: 'Name' },
    ],
    'number',
  ),
  font: font('Font', FIRST_FONT),
  size: px('Size', 32, { min: 0.1, max: 5_000, step: 0.5 }),
  place: choice(
    'Stands',
    [
      { value: 'beyond', label: 'Beyond its end' },
      { value: 'within', label: 'Within its end' },
      { value: 'middle', label: 'In its middle' },
      { value: 'foot', label: 'At its foot' },
    ],
    'beyond',
  ),
  away: px('Away', 14, { when: ['place', 'beyond', 'within', 'foot'] }),
  decimals: number('Decimals', 0, { min: 0, max: 6, whole: true, when: OF_NUMBERS }),
  apart: text('Groups apart', '', { most: 4, lines: 'one', hint: 'by a comma, as in 12,500', when: OF_NUMBERS }),
  before: text('Before', '', { most: 40, lines: 'one', when: OF_NUMBERS }),
  after: text('After', '', { most: 40, lines: 'one', hint: '% or km', when: OF_NUMBERS }),
  fade: percent('Fades in by', 0.3),
} as const;
type LabelValues = Values<typeof PARAMS>;

/** How a piece is set. */
const ONE_LINE = {
  letters: 'as-typed',
  tracking: 0,
  leading: 1,
  align: 'left',
  wrap: null,
  pairs: '',
  features: 'tnum',
} as const;

/** What is written, in pieces that are set by themselves: digits one by one, which a banner then carries once each. */
const piecesOf = (v: LabelValues, { number: own, share, name, grown }: Datum): readonly string[] => {
  if (v.written === 'name') return [name];
  const value = (v.written === 'share' ? share * 100 : own) * grown;
  return [v.before, ...digits(value, v.decimals, v.apart), v.after];
};

/** Sets pieces one after another from x = 0 on their base line, digits of one width; each is laid out once. */
const setter = (face: Face, size: number) => {
  const known = new Map<string, TextLayout>();
  const laid = (text: string): TextLayout => {
    let own = known.get(text);
    if (!own) known.set(text, (own = layoutText(face, { ...ONE_LINE, text, size })));
    return own;
  };
  return (pieces: readonly string[]) => {
    const glyphs: PlacedGlyph[] = [];
    let width = 0;
    for (const piece of pieces.filter(Boolean)) {
      const from = width;
      for (const glyph of laid(piece).glyphs) {
        glyphs.push({ ...glyph, x: from + glyph.x });
        width += glyph.advance;
      }
    }
    return { glyphs, width };
  };
};

/** The middle of a label of some size that stands as it is wanted to. */
const middleOf = (
  { place, away: gap }: LabelValues,
  { foot, end, away: [ax, ay] }: Datum,
  w: number,
  h: number,
): Point => {
  if (place === 'middle') return [(foot[0] + end[0]) / 2, (foot[1] + end[1]) / 2];
  const far = gap + (Math.abs(ax) * w + Math.abs(ay) * h) / 2;
  const [x, y] = place === 'foot' ? foot : end;
  const way = place === 'beyond' ? far : -far;
  return [x + ax * way, y + ay * way];
};

/** What a shape that stands for no number is numbered by: its place among all, above its box. */
const numbered = ({ outlines }: Shape, order: number, count: number): readonly Datum[] => {
  const box = boxOfOutlines(IDENTITY, outlines);
  if (!box) return [];
  const x = (box.left + box.right) / 2;
  const at = { foot: [x, box.bottom], end: [x, box.top], away: [0, -1] } as const;
  return [{ number: order + 1, share: (order + 1) / count, name: '', grown: 1, ...at }];
};

/**
 * Writes what the shapes above stand for in their place, for a paint of its own: the numbers of a chart, counting as it grows,
 * their shares or their names; other shapes are numbered. Each label is a shape that stands for the same, so that others may follow.
 */
export const labels = step({
  kind: 'labels',
  label: 'Labels',
  params: PARAMS,
  summary: (v) => `Each its ${v.written}`,
  repainted: true,
  apply: (above, v) => {
    const flow = above.at(above.frame);
    const face = above.fonts.find(v.font)?.face;
    const shapes: Shape[] = [];
    if (!face) return { ...flow, shapes };
    const lineOf = setter(face, v.size);
    const high = face.metrics.capHeight * v.size;
    for (const [i, shape] of flow.shapes.entries()) {
      for (const datum of shape.data ?? numbered(shape, i, flow.shapes.length)) {
        const { glyphs, width } = lineOf(piecesOf(v, datum));
        const [x, y] = middleOf(v, datum, width, high);
        const [left, base] = [x - width / 2, y + high / 2];
        const standing = glyphs.map((glyph) => ({ ...glyph, x: glyph.x + left, y: glyph.y + base }));
        const outlines = glyphOutlines(face, v.size, standing);
        if (!above.take(1, workOf(outlines))) return { ...flow, shapes };
        const shown = v.fade > 0 ? datum.grown / v.fade : Math.sign(datum.grown);
        shapes.push({ outlines, alpha: shape.alpha * Math.min(1, Math.max(0, shown)), data: [datum] });
      }
    }
    return { ...flow, shapes };
  },
});
