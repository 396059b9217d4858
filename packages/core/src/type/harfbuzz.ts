/** Faces on HarfBuzz. Loaded when text is first needed; the banner's runtime does without. */
import { Blob, Buffer, Face as HbFace, Feature, Font, shape, Variation } from 'harfbuzzjs';
import { LIMITS } from '../document/limits';
import { asName } from '../document/text';
import { type GlyphPath, glyphsFrom, UNITS } from './glyphs';
import type { Face, Glyph, Ligatures, Metrics } from './types';

/** Glyphs of part n of a face start at n times this. */
const PART = 1 << 20;

export interface FontFacts {
  readonly family: string;
  readonly weight: number;
  readonly italic: boolean;
  readonly weights: readonly [number, number] | null;
}

const open = (bytes: Uint8Array): HbFace => new HbFace(new Blob(bytes));

const word = (table: Uint8Array, at: number): number => ((table[at] ?? 0) << 8) | (table[at + 1] ?? 0);

const nameOf = (face: HbFace, id: number): string => {
  const entry = face.listNames().find((n) => n.nameId === id);
  return entry ? face.getName(id, entry.language).trim() : '';
};

/** Name 1 carries the style where it is not one of the four that old systems knew (OpenType 1.9, name IDs). */
const STYLE_NAMES =
  /( (Thin|Hairline|ExtraLight|Extra Light|UltraLight|Light|Medium|SemiBold|Semi Bold|DemiBold|ExtraBold|Extra Bold|Black|Heavy|Italic))+$/i;

/**
 * What a font file says of itself: its family (names 16, then 1), and weight and slope from the OS/2
 * table (OpenType 1.9, usWeightClass and fsSelection). A RangeError where it is no font with outlines.
 */
export const readFont = (bytes: Uint8Array): FontFacts => {
  const face = open(bytes);
  const has = (tag: string) => (face.referenceTable(tag)?.length ?? 0) > 0;
  if (!has('cmap') || !has('hmtx') || !(has('glyf') || has('CFF ') || has('CFF2'))) {
    throw new RangeError('is not a font with outlines');
  }
  const os2 = face.referenceTable('OS/2');
  const axis = face.getAxisInfos().wght;
  const weight = os2 && os2.length >= 6 ? word(os2, 4) : 400;
  return {
    family: asName(nameOf(face, 16) || nameOf(face, 1).replace(STYLE_NAMES, ''), 'Unnamed font', LIMITS.name),
    weight: Math.min(1000, Math.max(1, weight || 400)),
    italic: os2 !== undefined && os2.length >= 64 && (word(os2, 62) & 1) === 1,
    weights: axis ? [Math.max(1, axis.min), Math.min(1000, axis.max)] : null,
  };
};

interface Part {
  readonly font: Font;
  readonly covers: ReadonlySet<number>;
}

const partOf = (bytes: Uint8Array, weight: number): Part => {
  const face = open(bytes);
  const font = new Font(face);
  font.setScale(UNITS, UNITS);
  const axes = face.getAxisInfos();
  if (axes.wght) {
    const { min, max } = axes.wght;
    font.setVariations([new Variation('wght', Math.min(max, Math.max(min, weight)))]);
  }
  return { font, covers: new Set(face.collectUnicodes()) };
};

/** Runs of text that one part covers; letters that none covers go to the first. */
const runsOf = (text: string, parts: readonly Part[]): { part: number; from: number; to: number }[] => {
  const runs: { part: number; from: number; to: number }[] = [];
  let at = 0;
  for (const letter of text) {
    const code = letter.codePointAt(0) as number;
    const last = runs.at(-1);
    // Spaces and marks stay with what they follow.
    const stays = last && (/[\s\p{M}\u200d]/u.test(letter) || parts[last.part]?.covers.has(code));
    const part = stays
      ? last.part
      : Math.max(
          0,
          parts.findIndex((p) => p.covers.has(code)),
        );
    if (last?.part === part) last.to = at + letter.length;
    else runs.push({ part, from: at, to: at + letter.length });
    at += letter.length;
  }
  return runs;
};

const LIGATURES = ['liga', 'clig', 'dlig'];

const shapeRun = (font: Font, text: string, ligatures: Ligatures): Glyph[] => {
  const buffer = new Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  shape(font, buffer, ligatures === 'on' ? [] : LIGATURES.map((tag) => new Feature(tag, 0)));
  const infos = buffer.getGlyphInfos();
  const positions = buffer.getGlyphPositions();
  return infos.map(({ codepoint, cluster }, i) => {
    const { xAdvance = 0, xOffset = 0, yOffset = 0 } = positions[i] ?? {};
    return { id: codepoint, cluster, advance: xAdvance / UNITS, x: xOffset / UNITS, y: -yOffset / UNITS };
  });
};

const glyphPath = (font: Font, id: number): GlyphPath =>
  font.glyphToJson(id).map(({ type, values }) => [type, ...values.map(Math.round)] as const);

const metricsOf = ({ font }: Part): Metrics => {
  const { ascender, descender } = font.hExtents();
  const cap = font.glyphExtents(font.nominalGlyph(0x48) ?? 0);
  return { ascent: ascender / UNITS, descent: -descender / UNITS, capHeight: cap ? cap.yBearing / UNITS : 0.7 };
};

const MOST_SHAPED = 2_000;

/** One face from the files it is kept in (a font's subsets); letters are looked up in them in order. */
export const faceOf = (files: readonly Uint8Array[], weight: number): Face => {
  const parts = files.map((bytes) => partOf(bytes, weight));
  const shaped = new Map<string, readonly Glyph[]>();
  return {
    metrics: metricsOf(parts[0] as Part),
    shape: (text, ligatures) => {
      const key = `${ligatures}:${text}`;
      let glyphs = shaped.get(key);
      if (!glyphs) {
        if (shaped.size >= MOST_SHAPED) shaped.clear();
        glyphs = runsOf(text, parts).flatMap(({ part, from, to }) =>
          shapeRun((parts[part] as Part).font, text.slice(from, to), ligatures).map((g) => ({
            ...g,
            id: g.id + part * PART,
            cluster: g.cluster + from,
          })),
        );
        shaped.set(key, glyphs);
      }
      return glyphs;
    },
    ...glyphsFrom((glyph) => glyphPath((parts[Math.floor(glyph / PART)] as Part).font, glyph % PART)),
  };
};
