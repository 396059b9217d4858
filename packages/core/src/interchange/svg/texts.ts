/** Texts: lines with a place of their own, each in one style (SVG 2, chapter 11). */
import { MOST_LETTERS } from '../../document/params';
import { asName, cutText, sound } from '../../document/text';
import type { Point } from '../../document/types';
import { type Box } from '../../geometry/bounds';
import { IDENTITY, multiply, translation } from '../../geometry/matrix';
import { inkOf, isStrokeFirst, strokeOf } from './inks';
import { boxOfText, type SvgText } from './nodes';
import { shareOf } from './paints';
import type { SvgElement } from './parse';
import { lengthOf, numbersOf } from './style';
import { type Reading, textIn, type Walk } from './walk';

const movedBox = ({ left, top, right, bottom }: Box, [x, y]: Point): Box => ({
  left: left + x,
  top: top + y,
  right: right + x,
  bottom: bottom + y,
});

const isPlaced = ({ name, attributes: a }: SvgElement): boolean =>
  name === 'tspan' && (a.x !== undefined || a.y !== undefined);

/** Where a text begins, from where the one around it does. */
const startOf = ({ attributes: a }: SvgElement, [x, y]: Point): Point => {
  const first = (key: string) => numbersOf(a[key])[0];
  return [(first('x') ?? x) + (first('dx') ?? 0), (first('y') ?? y) + (first('dy') ?? 0)];
};

const lineOf = (e: SvgElement, walk: Walk, at: Point, reading: Reading): SvgText[] => {
  const { style } = walk;
  const text = textIn(e).replace(/\s+/g, ' ').trim();
  if (!text) return [];
  const size = lengthOf(style['font-size'], 16, 16);
  const anchor = style['text-anchor'];
  const align = anchor === 'middle' ? 'center' : anchor === 'end' ? 'right' : 'left';
  const box = boxOfText({ text, size, align });
  const around = { own: movedBox(box, at), painted: box };
  const own = translation(-at[0], -at[1]);
  const fill = walk.area
    ? ({ style: 'solid', color: '#000000' } as const)
    : inkOf(style.fill ?? 'black', walk, around, own, shareOf(style['fill-opacity']), reading);
  const stroke = walk.area ? null : strokeOf(walk, around, IDENTITY, 1, reading);
  if (!fill && !stroke) return [];
  if (e.children.some(({ name }) => name === 'tspan'))
    reading.note('text with several styles in a line takes the first');
  const weight = style['font-weight'] === 'bold' ? 700 : Number(style['font-weight']) || 400;
  return [
    {
      kind: 'text',
      name: asName(text, 'Text', 60),
      text: cutText(sound(text), MOST_LETTERS),
      matrix: multiply(walk.matrix, translation(...at)),
      family: (style['font-family'] ?? '').split(',')[0]?.replace(/['"]/g, '').trim() ?? '',
      weight: Math.min(1000, Math.max(1, weight)),
      italic: style['font-style'] === 'italic' || style['font-style'] === 'oblique',
      size,
      tracking: Math.round((lengthOf(style['letter-spacing'], size, 0) / size) * 1000),
      align,
      fill,
      stroke,
      strokeFirst: isStrokeFirst(style),
      opacity: 1,
    },
  ];
};

/** A text element as its lines: those of its parts that have a place of their own, else all of it. */
export const textsOf = (e: SvgElement, walk: Walk, reading: Reading): readonly SvgText[] => {
  if (walk.style.visibility === 'hidden') return [];
  if (e.children.some(({ name }) => name === 'textPath')) reading.note('text on a path lies straight');
  const start = startOf(e, [0, 0]);
  const spans = e.children.filter(isPlaced);
  if (spans.length === 0) return lineOf(e, walk, start, reading);
  // What stands before the first of them is a line as well.
  const first = e.children.indexOf(spans[0] as SvgElement);
  const before = { ...e, children: e.children.slice(0, first), text: e.text.filter((t) => t.before <= first) };
  return [
    ...lineOf(before, walk, start, reading),
    ...spans.flatMap((span) => {
      const line = [...walk.line, span];
      return lineOf(span, { ...walk, style: reading.style(line, walk.style), line }, startOf(span, start), reading);
    }),
  ];
};
