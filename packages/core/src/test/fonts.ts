/** A face for tests: every letter is a square half an em wide, so that all places are known; a line runs and breaks as Unicode has it. */
import { type GlyphPath, glyphsFrom, UNITS } from '../type/glyphs';
import { breaksOf, levelsOf } from '../type/paragraph';
import type { TextStyle } from '../type/layout';
import type { Face, Fonts } from '../type/types';

/** From 0.1 to 0.4 em across, from the baseline to half an em above it. */
const square: GlyphPath = [
  ['M', 0.1 * UNITS, 0],
  ['L', 0.4 * UNITS, 0],
  ['L', 0.4 * UNITS, 0.5 * UNITS],
  ['L', 0.1 * UNITS, 0.5 * UNITS],
  ['Z'],
];

export const squareFace: Face = {
  metrics: { ascent: 0.8, descent: 0.2, capHeight: 0.5 },
  // `fi` is one glyph while ligatures are on.
  shape: (text, features) => {
    const glyphs = [];
    const levels = levelsOf(text);
    const breaks = breaksOf(text);
    for (let i = 0; i < text.length; i++) {
      const joined = !features.includes('-liga') && text.slice(i, i + 2) === 'fi';
      glyphs.push({
        id: text[i] === ' ' || text[i] === '\u00ad' ? 0 : 1,
        cluster: i,
        advance: text[i] === '\u00ad' ? 0 : 0.5,
        x: 0,
        y: 0,
        level: levels?.[i] ?? 0,
        breaks: breaks.has(i + 1) ? 1 : 0,
      });
      if (joined) i++;
    }
    return glyphs;
  },
  ...glyphsFrom((glyph) => (glyph === 0 ? [] : square)),
};

export const squareFonts: Fonts = { find: () => ({ face: squareFace, instead: null }) };

/** Words as they are typed, of 100 pixels, on lines of their own. */
export const PLAIN: TextStyle = {
  text: 'Tram',
  letters: 'as-typed',
  size: 100,
  tracking: 0,
  leading: 1.2,
  align: 'left',
  wrap: null,
  pairs: '',
  features: '',
};
