/** Text laid out in lines: glyphs with their places. Pure, and free of any font engine. */
import type { Point } from '../document/types';
import { transformed, type Outline } from '../geometry/outline';
import { broken } from './breaking';
import { inSight } from './directions';
import { pairsIn } from './pairs';
import { advanceOf, isSpace, type Piece } from './pieces';
import type { Face, Glyph } from './types';

export interface TextStyle {
  readonly text: string;
  readonly letters: 'as-typed' | 'upper' | 'lower';
  /** Pixels per em. */
  readonly size: number;
  /** Thousandths of an em between letters. */
  readonly tracking: number;
  /** From baseline to baseline, as a share of the size. */
  readonly leading: number;
  readonly align: 'left' | 'center' | 'right' | 'justify';
  /** The width that lines are broken at; null for a line to each line of the text. */
  readonly wrap: number | null;
  /** Adjustments by hand: `AV -40, To 20`, in thousandths of an em. */
  readonly pairs: string;
  /** OpenType features: `tnum, ss01`. */
  readonly features: string;
}

export interface PlacedGlyph {
  readonly id: number;
  readonly x: number;
  readonly y: number;
  readonly advance: number;
  /** The range of the typed text it stands for. */
  readonly from: number;
  readonly to: number;
  readonly line: number;
  /** Odd where it runs from right to left. */
  readonly level: number;
}
export interface TextLine {
  readonly from: number;
  readonly to: number;
  /** Its first and last pixel along x, and its baseline. */
  readonly left: number;
  readonly right: number;
  /** Without the spaces at its end. */
  readonly width: number;
  readonly baseline: number;
  /** Whether it is read from right to left. */
  readonly leftward: boolean;
}
export interface TextLayout {
  readonly glyphs: readonly PlacedGlyph[];
  readonly lines: readonly TextLine[];
  readonly ascent: number;
  readonly descent: number;
}

/** Letter by letter, so that no index moves; the few letters whose other case is longer stay as they are. */
export const cased = (text: string, letters: TextStyle['letters']): string => {
  if (letters === 'as-typed') return text;
  return [...text]
    .map((c) => {
      const other = letters === 'upper' ? c.toUpperCase() : c.toLowerCase();
      return other.length === c.length ? other : c;
    })
    .join('');
};

const shaped = (paragraph: string, face: Face, style: TextStyle): Piece[] => {
  // Letters that are spaced out are not joined (CSS Text 3, 8.2), unless that is asked for.
  const apart = style.tracking === 0 ? '' : '-liga, -clig, -dlig';
  const glyphs = face.shape(paragraph, [apart, style.features].filter(Boolean).join(', '));
  const between = style.pairs ? pairsIn(paragraph, style.pairs) : () => 0;
  const starts = [...new Set(glyphs.map((g) => g.cluster))].sort((a, b) => a - b);
  const ends = new Map(starts.map((from, i) => [from, starts[i + 1] ?? paragraph.length]));
  return glyphs.map((glyph, i) => {
    const { cluster, advance, level } = glyph;
    const next = ends.get(cluster) as number;
    // What is moved apart are letters with their marks (CSS Text 3, 8.2): the glyph on the right of each, and none of what is invisible.
    const isOf = (other: Glyph | undefined) => other?.cluster === cluster;
    const [before, after] = [glyphs[i - 1], glyphs[i + 1]];
    const moves = !isOf(level % 2 === 1 ? before : after) && (advance > 0 || isOf(before) || isOf(after));
    const extra = moves ? (style.tracking + between(cluster, next)) / 1000 : 0;
    return { glyph, to: next, advance: (advance + extra) * style.size };
  });
};

/** What is seen of a line, and the spaces at its end, which hang over. */
const parted = (row: readonly Piece[], text: string): readonly [seen: readonly Piece[], after: readonly Piece[]] => {
  let end = row.length;
  while (end > 0 && isSpace(text, row[end - 1]!.glyph.cluster)) end--;
  return [row.slice(0, end), row.slice(end)];
};

/**
 * Point text has its first baseline at y = 0, and x = 0 at its left end, middle or right end; with a
 * width to wrap at, lines stand between −width / 2 and width / 2.
 */
export const layoutText = (face: Face, style: TextStyle): TextLayout => {
  const glyphs: PlacedGlyph[] = [];
  const lines: TextLine[] = [];
  const { size, wrap, align } = style;
  const half = (wrap ?? 0) / 2;
  let start = 0;
  for (const typed of style.text.split('\n')) {
    const paragraph = cased(typed, style.letters);
    const pieces = shaped(paragraph, face, style);
    const rows = wrap === null ? [pieces] : broken(pieces, paragraph, wrap, () => shaped('-', face, style)[0]!);
    const turns = pieces.some(({ glyph }) => glyph.level > 0);
    // What begins from right to left has no level below 1 (UAX 9, rules P2 to X1).
    const leftward = turns && pieces.every(({ glyph }) => glyph.level > 0);
    rows.forEach((row, n) => {
      const [seen, after] = parted(row, paragraph);
      // The tracking of the last letter is not part of the line.
      const own = advanceOf(seen) - (seen.length > 0 ? (style.tracking / 1000) * size : 0);
      const spaces = seen.filter((p) => isSpace(paragraph, p.glyph.cluster)).length;
      const stretch =
        align === 'justify' && wrap !== null && n < rows.length - 1 && spaces > 0 ? (wrap - own) / spaces : 0;
      const width = own + stretch * spaces;
      const side = align === 'justify' && leftward ? 'right' : align;
      const left = side === 'center' ? -width / 2 : side === 'right' ? half - width : 0 - half;
      const first = leftward ? left - advanceOf(after) : left;
      const baseline = lines.length * size * style.leading;
      const inOrder = turns ? inSight(seen) : seen;
      let x = first;
      for (const { glyph, to, advance } of leftward ? [...after, ...inOrder] : [...inOrder, ...after]) {
        const wide = advance + (isSpace(paragraph, glyph.cluster) ? stretch : 0);
        glyphs.push({
          id: glyph.id,
          x: x + glyph.x * size,
          y: baseline + glyph.y * size,
          advance: wide,
          from: start + glyph.cluster,
          to: start + to,
          line: lines.length,
          level: glyph.level,
        });
        x += wide;
      }
      lines.push({
        from: start + (row[0]?.glyph.cluster ?? 0),
        to: start + (row.at(-1)?.to ?? paragraph.length),
        left: first,
        right: leftward || after.length === 0 ? left + width : x,
        width,
        baseline,
        leftward,
      });
    });
    start += typed.length + 1;
  }
  return { glyphs, lines, ascent: face.metrics.ascent * size, descent: face.metrics.descent * size };
};

/** How high a layout is, from its first line's top to its last line's foot, in pixels. */
export const heightOf = ({ lines, ascent, descent }: TextLayout): number =>
  ascent + (lines.at(-1)?.baseline ?? 0) + descent;

/** The outlines of some glyphs of a layout, in pixels. */
export const glyphOutlines = (face: Face, size: number, glyphs: readonly PlacedGlyph[]): Outline[] =>
  glyphs.flatMap(({ id, x, y }) => face.outlines(id).map((outline) => transformed([size, 0, 0, size, x, y], outline)));

const isLeftward = ({ level }: PlacedGlyph): boolean => level % 2 === 1;

/** Where a caret before a place in the text stands: on which line, and its x. */
export const caretAt = (layout: TextLayout, index: number): { readonly line: number; readonly at: Point } => {
  let line = layout.lines.findIndex((l) => index >= l.from && index <= l.to);
  // At a soft break the caret goes to the start of the next line.
  const next = layout.lines[line + 1];
  if (next && next.from === index) line++;
  const own = layout.lines[Math.max(0, line)];
  if (!own) return { line: 0, at: [0, 0] };
  const inside = layout.glyphs.find((g) => g.line === line && index >= g.from && index < g.to);
  if (!inside) return { line, at: [own.leftward ? own.left : own.right, own.baseline] };
  const along = (index - inside.from) / Math.max(1, inside.to - inside.from);
  const share = isLeftward(inside) ? 1 - along : along;
  return { line, at: [inside.x + inside.advance * share, own.baseline] };
};

/** The place in the text that is nearest to a point. */
export const indexAt = (layout: TextLayout, [x, y]: Point): number => {
  const { lines, glyphs } = layout;
  let line = 0;
  lines.forEach((l, i) => {
    if (y > l.baseline - layout.ascent) line = i;
  });
  const own = lines[line];
  if (!own) return 0;
  for (const g of glyphs) {
    if (g.line !== line) continue;
    if (x < g.x + g.advance / 2) return isLeftward(g) ? g.to : g.from;
  }
  return own.leftward ? own.from : own.to;
};
