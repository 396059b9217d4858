/** What laid-out text is made of: its letters, words and lines. */
import type { Point } from '../document/types';
import { type Box, outlineBox, union } from '../geometry/bounds';
import type { TextUnit } from '../motion/sampler';
import { glyphOutlines, type PlacedGlyph, type TextLayout } from './layout';
import type { Face } from './types';

export interface PartOfText {
  readonly text: string;
  /** The range of the typed text it stands for. */
  readonly from: number;
  readonly to: number;
  readonly glyphs: readonly PlacedGlyph[];
  /** Where its first glyph begins, on the base line. */
  readonly at: Point;
  /** What its outlines cover; of a part without any its place. */
  readonly box: Box;
  /** The middle of its base line. */
  readonly base: Point;
  /** How far its glyphs go on along the base line, in pixels. */
  readonly width: number;
  /** How wide the white space is that follows it on its line. */
  readonly space: number;
  /** How far its font reaches above its base line, and below, in pixels. */
  readonly rise: number;
  readonly fall: number;
  /** The middle of the word that it stands in: its own, of a word or a line. */
  readonly word: Point;
}

const middleOf = ({ left, right, top, bottom }: Box): Point => [(left + right) / 2, (top + bottom) / 2];

const isSpace = (text: string, { from, to }: PlacedGlyph): boolean => /^\s*$/.test(text.slice(from, to));

/** Glyphs that belong together, in reading order; spaces are left out. */
const grouped = (text: string, { glyphs }: TextLayout, by: TextUnit): PlacedGlyph[][] => {
  const groups: PlacedGlyph[][] = [];
  const space = (g: PlacedGlyph) => isSpace(text, g);
  let open: PlacedGlyph | null = null;
  for (const g of glyphs) {
    const last = groups.at(-1);
    const joins =
      open !== null &&
      last !== undefined &&
      open.line === g.line &&
      // Glyphs of one cluster, as an accent on its letter, stay together.
      (by === 'lines' || (by === 'words' ? !space(open) && !space(g) : open.from === g.from));
    if (joins) last.push(g);
    else if (!space(g)) groups.push([g]);
    open = space(g) && by === 'words' ? null : g;
  }
  const firstOf = (group: readonly PlacedGlyph[]) => Math.min(...group.map((g) => g.from));
  return groups.sort((a, b) => firstOf(a) - firstOf(b));
};

/** How wide the white space is right after each glyph, on its line. */
const spacesAfter = (text: string, { glyphs }: TextLayout): ReadonlyMap<PlacedGlyph, number> => {
  const spaces = new Map<PlacedGlyph, number>();
  let before: PlacedGlyph | null = null;
  for (const g of glyphs) {
    if (before?.line !== g.line || !isSpace(text, g)) before = g;
    else spaces.set(before, (spaces.get(before) ?? 0) + g.advance);
  }
  return spaces;
};

/** The parts of text in reading order, its face at a size; `down` and `right` is where the layout stands. */
export const partsOfText = (
  text: string,
  { layout, face, size }: { readonly layout: TextLayout; readonly face: Face; readonly size: number },
  [right, down]: Point,
  by: TextUnit,
): readonly PartOfText[] => {
  const spaces = spacesAfter(text, layout);
  const parts = grouped(text, layout, by).map((glyphs): Omit<PartOfText, 'word'> => {
    const from = Math.min(...glyphs.map((g) => g.from));
    const to = Math.max(...glyphs.map((g) => g.to));
    const first = glyphs[0] as PlacedGlyph;
    const box = glyphOutlines(face, size, glyphs).reduce<Box | null>((sum, o) => union(sum, outlineBox(o)), null);
    const baseline = (layout.lines[first.line]?.baseline ?? 0) + down;
    const width = glyphs.reduce((sum, g) => sum + g.advance, 0);
    const left = first.x + right;
    return {
      text: text.slice(from, to).trimEnd(),
      from,
      to,
      glyphs,
      at: [left, baseline],
      base: [left + width / 2, baseline],
      width,
      space: spaces.get(glyphs.at(-1)!) ?? 0,
      rise: layout.ascent,
      fall: layout.descent,
      box: box
        ? { left: box.left + right, right: box.right + right, top: box.top + down, bottom: box.bottom + down }
        : { left, right: left + width, top: baseline - layout.ascent, bottom: baseline },
    };
  });
  const words = by === 'letters' ? partsOfText(text, { layout, face, size }, [right, down], 'words') : [];
  return parts.map((part) => {
    const own = part.glyphs[0];
    const word = words.find(({ glyphs }) => glyphs.some((g) => g === own));
    return { ...part, word: middleOf(word?.box ?? part.box) };
  });
};
