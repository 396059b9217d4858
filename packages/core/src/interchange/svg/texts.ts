/** Texts: lines with a place of their own, each in one style (SVG 2, chapter 11). */
import { MOST_LETTERS } from '../../document/params';
import { asName, cutText, sound } from '../../document/text';
import type { Point } from '../../document/types';
import { type Box } from '../../geometry/bounds';
import { arcLength } from '../../geometry/length';
import { multiply, translation } from '../../geometry/matrix';
import { outlineOfPath } from '../../geometry/outline';
import { inkOf, isStrokeFirst, strokeOf } from './inks';
import { boxOfText, isOval, type SvgAlong, type SvgText } from './nodes';
import { shareOf } from './paints';
import type { SvgElement } from './parse';
import { dataOf, pathsOf } from './shapes';
import { lengthOf, numbersOf } from './style';
import { transformOf } from './transform';
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

const anchorOf = ({ style }: Walk): SvgAlong['stands'] => {
  const anchor = style['text-anchor'];
  return anchor === 'middle' || anchor === 'end' ? anchor : 'start';
};
const ALIGNED = { start: 'left', middle: 'center', end: 'right' } as const;

/** How much of what a text is spaced by comes before its anchor: after its last letter there is as much as between two of them. */
const SPACED = { start: 0, middle: 0.5, end: 1 } as const;

const lineOf = (e: SvgElement, walk: Walk, from: Point, along: SvgAlong | null, reading: Reading): SvgText[] => {
  const { style } = walk;
  const text = textIn(e).replace(/\s+/g, ' ').trim();
  if (!text) return [];
  const size = lengthOf(style['font-size'], 16, 16);
  const align = along ? 'left' : ALIGNED[anchorOf(walk)];
  const spacing = lengthOf(style['letter-spacing'], size, 0);
  const at: Point = [from[0] - (along ? 0 : spacing * SPACED[anchorOf(walk)]), from[1]];
  const box = boxOfText({ text, size, align, along });
  const around = { own: movedBox(box, at), painted: box };
  const own = translation(-at[0], -at[1]);
  const fill = walk.area
    ? ({ style: 'solid', color: '#000000' } as const)
    : inkOf(style.fill ?? 'black', walk, around, own, shareOf(style['fill-opacity']), reading);
  const stroke = walk.area ? null : strokeOf(walk, around, own, 1, reading);
  if (!fill && !stroke) return [];
  if (stroke && isOval(stroke.ink)) reading.note('an oval gradient on the line of a text is drawn round');
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
      tracking: Math.round((spacing / size) * 1000),
      align,
      along,
      fill,
      stroke,
      strokeFirst: isStrokeFirst(style),
      opacity: 1,
    },
  ];
};

/** The path that a text lies along (SVG 2, 11.8.3); null where it names none. */
const alongOf = ({ attributes: a }: SvgElement, walk: Walk, reading: Reading): SvgAlong | null => {
  const target = reading.byId.get((a.href ?? '').replace(/^#/, ''));
  const data = target && dataOf(target, walk.size);
  const [path] = data ? pathsOf(data, transformOf(target.attributes.transform)) : [];
  const outline = path && outlineOfPath(path);
  if (!path || !outline) return null;
  const total = arcLength(outline);
  const share = lengthOf(a.startOffset, total, 0) / (total || 1);
  const stands = anchorOf(walk);
  // A closed path begins, ends and has its middle at one point.
  const from = path.closed ? 0 : { start: 0, middle: 0.5, end: 1 }[stands];
  return { path, stands, shift: share - from, backwards: a.side === 'right' };
};

/** A text element as its lines: those of its parts that have a place of their own, or lie along a path, else all of it. */
export const textsOf = (e: SvgElement, walk: Walk, reading: Reading): readonly SvgText[] => {
  if (walk.style.visibility === 'hidden') return [];
  const start = startOf(e, [0, 0]);
  const first = e.children.findIndex((child) => isPlaced(child) || child.name === 'textPath');
  if (first < 0) return lineOf(e, walk, start, null, reading);
  // What stands before the first of them is a line as well.
  const before = { ...e, children: e.children.slice(0, first), text: e.text.filter((t) => t.before <= first) };
  return [
    ...lineOf(before, walk, start, null, reading),
    ...e.children.slice(first).flatMap((part) => {
      const line = [...walk.line, part];
      const own: Walk = { ...walk, style: reading.style(line, walk.style), line };
      if (part.name !== 'textPath') return isPlaced(part) ? lineOf(part, own, startOf(part, start), null, reading) : [];
      const along = alongOf(part, own, reading);
      if (!along) reading.note('a text along a path that is not there is left out');
      return along ? lineOf(part, own, [0, 0], along, reading) : [];
    }),
  ];
};
