/** Glyphs' outlines from a font's own drawing commands. */
import { OutlineWriter, type Outline } from '../geometry/outline';

/** Units per em that fonts are asked in: finer than nearly any font's own. */
export const UNITS = 16_384;

/** What a line of text is remembered by that was set with some features: neither has a line break. */
export const askedAs = (text: string, features: string): string => `${features}\n${text}`;

/** Commands M, L, Q, C and Z as in SVG, with coordinates in whole units, y upward. */
export type GlyphPath = readonly (readonly [command: string, ...values: number[]])[];

const outlinesOf = (path: GlyphPath): Outline[] => {
  const out: Outline[] = [];
  let writer: OutlineWriter | null = null;
  let [x, y] = [0, 0];
  const third = (end: number, control: number) => end + ((control - end) * 2) / 3;
  for (const [command, ...values] of path) {
    const v = values.map((n, i) => (i % 2 === 0 ? n : -n) / UNITS) as [number, number, number, number, number, number];
    switch (command) {
      case 'M':
        writer = new OutlineWriter(v[0], v[1]);
        break;
      case 'L':
        if (v[0] !== x || v[1] !== y) writer?.line(v[0], v[1]);
        break;
      case 'Q':
        writer?.cubic(third(x, v[0]), third(y, v[1]), third(v[2], v[0]), third(v[3], v[1]), v[2], v[3]);
        break;
      case 'C':
        writer?.cubic(...v);
        break;
      case 'Z': {
        const outline = writer?.close();
        if (outline && outline.points.length > 2) out.push(outline);
        writer = null;
      }
    }
    if (v.length > 0) [x, y] = v.slice(-2) as [number, number];
  }
  return out;
};

/** The part of a face that gives glyphs: each is worked out once. */
export const glyphsFrom = (path: (glyph: number) => GlyphPath) => {
  const known = new Map<number, readonly Outline[]>();
  return {
    path,
    outlines: (glyph: number): readonly Outline[] => {
      let own = known.get(glyph);
      if (!own) known.set(glyph, (own = outlinesOf(path(glyph))));
      return own;
    },
  };
};
