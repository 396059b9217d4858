/** Text laid out in lines: glyphs with their places. Pure, and free of any font engine. */
import type { Point } from '../document/types';
import { transformed, type Outline } from '../geometry/outline';
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
}
export interface TextLine {
  readonly from: number;
  readonly to: number;
  /** Its first and last pixel along x, and its baseline. */
  readonly left: number;
  readonly right: number;
  readonly baseline: number;
}
export interface TextLayout {
  readonly glyphs: readonly PlacedGlyph[];
  readonly lines: readonly TextLine[];
  readonly ascent: number;
  readonly descent: number;
}

/** Reads `AV -40, To 20`; what cannot be read is passed over. */
export const readPairs = (text: string): ReadonlyMap<string, number> => {
  const out = new Map<string, number>();
  for (const part of text.split(',')) {
    const [, pair, amount] = /^\s*(\S{2})\s+(-?\d+(?:\.\d+)?)\s*$/u.exec(part) ?? [];
    if (pair && amount !== undefined) out.set(pair, Number(amount));
  }
  return out;
};

export const writePairs = (pairs: ReadonlyMap<string, number>): string =>
  [...pairs]
    .filter(([, amount]) => amount !== 0)
    .map(([pair, amount]) => `${pair} ${amount}`)
    .join(', ');

/** Letter by letter, so that no index moves; the few letters whose other case is longer stay as they are. */
const cased = (text: string, letters: TextStyle['letters']): string => {
  if (letters === 'as-typed') return text;
  return [...text]
    .map((c) => {
      const other = letters === 'upper' ? c.toUpperCase() : c.toLowerCase();
      return other.length === c.length ? other : c;
    })
    .join('');
};

interface Piece {
  readonly glyph: Glyph;
  readonly to: number;
  /** With tracking and pairs, in pixels. */
  readonly advance: number;
}

/** The code point at an index; '' past the end. */
const letterAt = (text: string, at: number): string => {
  const code = text.codePointAt(at);
  return code === undefined ? '' : String.fromCodePoint(code);
};

const isSpace = (text: string, at: number): boolean => /[ \t]/.test(text[at] ?? '');

const shaped = (paragraph: string, face: Face, style: TextStyle): Piece[] => {
  // Letters that are spaced out are not joined (CSS Text 3, 8.2).
  const glyphs = face.shape(paragraph, style.tracking === 0 ? 'on' : 'off');
  const pairs = readPairs(style.pairs);
  // Letters that run from right to left have falling clusters.
  const starts = [...new Set(glyphs.map((g) => g.cluster))].sort((a, b) => a - b);
  const ends = new Map(starts.map((from, i) => [from, starts[i + 1] ?? paragraph.length]));
  return glyphs.map((glyph) => {
    const next = ends.get(glyph.cluster) as number;
    const pair = letterAt(paragraph, glyph.cluster) + letterAt(paragraph, next);
    const extra = (style.tracking + (pairs.get(pair) ?? 0)) / 1000;
    return { glyph, to: next, advance: (glyph.advance + extra) * style.size };
  });
};

/** Runs of pieces that fit the width, broken at spaces; a word that is too long has a line to itself. */
const broken = (pieces: readonly Piece[], text: string, wrap: number | null): Piece[][] => {
  if (wrap === null) return [[...pieces]];
  const lines: Piece[][] = [];
  let line: Piece[] = [];
  let width = 0;
  let afterSpace = 0;
  for (const piece of pieces) {
    const space = isSpace(text, piece.glyph.cluster);
    if (!space && width + piece.advance > wrap + 1e-6 && afterSpace > 0) {
      lines.push(line.slice(0, afterSpace));
      line = line.slice(afterSpace);
      width = line.reduce((sum, p) => sum + p.advance, 0);
      afterSpace = 0;
    }
    line.push(piece);
    width += piece.advance;
    if (space) afterSpace = line.length;
  }
  return [...lines, line];
};

/**
 * Point text has its first baseline at y = 0, and x = 0 at its left end, middle or right end; with a
 * width to wrap at, lines stand between −width / 2 and width / 2.
 */
export const layoutText = (face: Face, style: TextStyle): TextLayout => {
  const glyphs: PlacedGlyph[] = [];
  const lines: TextLine[] = [];
  const { size, wrap, align } = style;
  let start = 0;
  for (const typed of style.text.split('\n')) {
    const paragraph = cased(typed, style.letters);
    const rows = broken(shaped(paragraph, face, style), paragraph, wrap);
    rows.forEach((row, n) => {
      const full = row.reduce((sum, p) => sum + p.advance, 0);
      let end = row.length;
      while (end > 0 && isSpace(paragraph, (row[end - 1] as Piece).glyph.cluster)) end--;
      const seen = row.slice(0, end);
      // The space after the last letter is not part of the line.
      const width = seen.reduce((sum, p) => sum + p.advance, 0) - (end > 0 ? (style.tracking / 1000) * size : 0);
      const spaces = seen.filter((p) => isSpace(paragraph, p.glyph.cluster)).length;
      const stretch =
        align === 'justify' && wrap !== null && n < rows.length - 1 && spaces > 0 ? (wrap - width) / spaces : 0;
      const left =
        align === 'center'
          ? -width / 2
          : align === 'right'
            ? (wrap === null ? 0 : wrap / 2) - width
            : wrap === null
              ? 0
              : -wrap / 2;
      const baseline = lines.length * size * style.leading;
      let x = left;
      for (const { glyph, to, advance } of row) {
        const wide = advance + (isSpace(paragraph, glyph.cluster) ? stretch : 0);
        glyphs.push({
          id: glyph.id,
          x: x + glyph.x * size,
          y: baseline + glyph.y * size,
          advance: wide,
          from: start + glyph.cluster,
          to: start + to,
          line: lines.length,
        });
        x += wide;
      }
      const first = row[0]?.glyph.cluster ?? 0;
      const last = row.at(-1)?.to ?? (rows.length === 1 ? paragraph.length : first);
      const right = left + (row.length === end ? width + stretch * spaces : full + stretch * spaces);
      lines.push({ from: start + first, to: start + last, left, right, baseline });
    });
    start += typed.length + 1;
  }
  return { glyphs, lines, ascent: face.metrics.ascent * size, descent: face.metrics.descent * size };
};

/** The outlines of some glyphs of a layout, in pixels. */
export const glyphOutlines = (face: Face, size: number, glyphs: readonly PlacedGlyph[]): Outline[] =>
  glyphs.flatMap(({ id, x, y }) => face.outlines(id).map((outline) => transformed([size, 0, 0, size, x, y], outline)));

/** Where a caret before a place in the text stands: on which line, and its x. */
export const caretAt = (layout: TextLayout, index: number): { readonly line: number; readonly at: Point } => {
  let line = layout.lines.findIndex((l) => index >= l.from && index <= l.to);
  // At a soft break the caret goes to the start of the next line.
  const next = layout.lines[line + 1];
  if (next && next.from === index) line++;
  const own = layout.lines[Math.max(0, line)];
  if (!own) return { line: 0, at: [0, 0] };
  const inside = layout.glyphs.find((g) => g.line === line && index >= g.from && index < g.to);
  if (!inside) return { line, at: [own.right, own.baseline] };
  const share = (index - inside.from) / Math.max(1, inside.to - inside.from);
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
    if (x < g.x + g.advance / 2) return g.from;
  }
  return own.to;
};
