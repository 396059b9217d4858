/** Faces on HarfBuzz. Loaded when text is first needed; the banner's runtime does without. */
import { Blob, Buffer, Direction, Face as HbFace, Feature, Font, shape, Variation } from 'harfbuzzjs';
import { LIMITS } from '../document/limits';
import { asName } from '../document/text';
import { choosable, readFeatures } from './features';
import { askedAs, type GlyphPath, glyphsFrom, UNITS } from './glyphs';
import { breaksOf, levelsOf } from './paragraph';
import type { Face, Glyph, Metrics } from './types';

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
  readonly face: HbFace;
  readonly font: Font;
  readonly covers: ReadonlySet<number>;
  /** The tags of its OpenType features that choose or place glyphs. */
  readonly features: ReadonlySet<string>;
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
  const features = [...face.getTableFeatureTags('GSUB'), ...face.getTableFeatureTags('GPOS')];
  return { face, font, covers: new Set(face.collectUnicodes()), features: new Set(features) };
};

interface Run {
  readonly part: number;
  readonly level: number;
  readonly from: number;
  to: number;
}

/** Runs of text that one part covers and that run one way; letters that none covers go to the first. */
const runsOf = (text: string, parts: readonly Part[]): Run[] => {
  const runs: Run[] = [];
  const levels = levelsOf(text);
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
    const level = levels?.[at] ?? 0;
    if (last?.part === part && last.level === level) last.to = at + letter.length;
    else runs.push({ part, level, from: at, to: at + letter.length });
    at += letter.length;
  }
  return runs;
};

/** `tnum, -liga` as HarfBuzz has it. */
const featuresOf = (list: string): Feature[] =>
  [...readFeatures(list)].map(([tag, on]) => new Feature(tag, on ? 1 : 0));

const DIGIT = /^[0-9]$/;

/** Digits that stand in the middle of the widest one's width, for a font that has none of one width. */
const evened = (font: Font, text: string, glyphs: readonly Glyph[]): Glyph[] => {
  const widths = [...'0123456789'].map((digit) => font.glyphHAdvance(font.nominalGlyph(digit.charCodeAt(0)) ?? 0));
  const widest = Math.max(...widths) / UNITS;
  return glyphs.map((glyph) =>
    DIGIT.test(text[glyph.cluster] ?? '')
      ? { ...glyph, x: glyph.x + (widest - glyph.advance) / 2, advance: widest }
      : glyph,
  );
};

const shapeRun = (
  { font, features: own }: Part,
  text: string,
  level: number,
  features: readonly Feature[],
): Glyph[] => {
  const buffer = new Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  buffer.setDirection(level % 2 === 1 ? Direction.RTL : Direction.LTR);
  shape(font, buffer, [...features]);
  const infos = buffer.getGlyphInfos();
  const positions = buffer.getGlyphPositions();
  const glyphs = infos.map(({ codepoint, cluster }, i) => {
    const { xAdvance = 0, xOffset = 0, yOffset = 0 } = positions[i] ?? {};
    return {
      id: codepoint,
      cluster,
      advance: xAdvance / UNITS,
      x: xOffset / UNITS,
      y: -yOffset / UNITS,
      level,
      breaks: 0,
    };
  });
  const even = features.some(({ tag, value }) => tag === 'tnum' && value === 1) && !own.has('tnum');
  // HarfBuzz gives what runs to the left in the order in which it is seen.
  const read = level % 2 === 1 ? glyphs.reverse() : glyphs;
  return even ? evened(font, text, read) : read;
};

const glyphPath = (font: Font, id: number): GlyphPath =>
  font.glyphToJson(id).map(({ type, values }) => [type, ...values.map(Math.round)] as const);

/** What a font calls one of its stylistic sets or character variants; '' where it says nothing. */
const ownName = (face: HbFace, tag: string): string => {
  const id = face.getFeatureNameIds('GSUB', face.getTableFeatureTags('GSUB').indexOf(tag))?.uiLabelNameId;
  return id === undefined ? '' : asName(nameOf(face, id), '', LIMITS.name);
};

const metricsOf = ({ font }: Part): Metrics => {
  const { ascender, descender } = font.hExtents();
  const cap = font.glyphExtents(font.nominalGlyph(0x48) ?? 0);
  return { ascent: ascender / UNITS, descent: -descender / UNITS, capHeight: cap ? cap.yBearing / UNITS : 0.7 };
};

/** A line of text in a face's parts, in the order in which it is read. */
const setIn = (parts: readonly Part[], text: string, features: readonly Feature[]): Glyph[] => {
  const breaks = breaksOf(text);
  const glyphs = runsOf(text, parts).flatMap(({ part, level, from, to }) =>
    shapeRun(parts[part] as Part, text.slice(from, to), level, features).map((glyph) => ({
      ...glyph,
      id: glyph.id + part * PART,
      cluster: glyph.cluster + from,
    })),
  );
  return glyphs.map((glyph, i) => ({ ...glyph, breaks: breaks.has(glyphs[i + 1]?.cluster ?? -1) ? 1 : 0 }));
};

const MOST_SHAPED = 2_000;

/** One face from the files it is kept in (a font's subsets); letters are looked up in them in order. */
export const faceOf = (files: readonly Uint8Array[], weight: number): Face => {
  const parts = files.map((bytes) => partOf(bytes, weight));
  const shaped = new Map<string, readonly Glyph[]>();
  const tags = new Set(parts.flatMap(({ features }) => [...features]));
  return {
    metrics: metricsOf(parts[0] as Part),
    facts: {
      features: choosable(tags, (tag) => ownName((parts[0] as Part).face, tag)),
      lacks: (text) =>
        [...new Set(text)].filter(
          (letter) =>
            !/[\s\p{Cc}\p{DI}]/u.test(letter) && !parts.some(({ covers }) => covers.has(letter.codePointAt(0)!)),
        ),
    },
    shape: (text, features) => {
      const key = askedAs(text, features);
      let glyphs = shaped.get(key);
      if (!glyphs) {
        if (shaped.size >= MOST_SHAPED) shaped.clear();
        shaped.set(key, (glyphs = setIn(parts, text, featuresOf(features))));
      }
      return glyphs;
    },
    ...glyphsFrom((glyph) => glyphPath((parts[Math.floor(glyph / PART)] as Part).font, glyph % PART)),
  };
};
