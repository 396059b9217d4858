/** Fonts as text needs them. Lengths are in ems, y points down, the baseline is at 0. */
import type { FontChoice } from '../document/types';
import type { Outline } from '../geometry/outline';
import type { FontFeature } from './features';
import type { GlyphPath } from './glyphs';

export interface Glyph {
  /** Means something to its face alone. */
  readonly id: number;
  /** Index of the first UTF-16 unit of the text that it stands for. */
  readonly cluster: number;
  readonly advance: number;
  readonly x: number;
  readonly y: number;
  /** Odd where it runs from right to left (Unicode Bidirectional Algorithm, UAX 9: embedding levels). */
  readonly level: number;
  /** 1 where a line may end after it though no space stands there (Unicode Line Breaking Algorithm, UAX 14), else 0. */
  readonly breaks: number;
}

export interface Metrics {
  readonly ascent: number;
  /** Positive. */
  readonly descent: number;
  readonly capHeight: number;
}

export interface Face {
  readonly metrics: Metrics;
  /** What is known of it where its file is: not in a banner. */
  readonly facts?: {
    readonly features: readonly FontFeature[];
    /** The letters of a text that it has not. */
    readonly lacks: (text: string) => readonly string[];
  };
  /**
   * One line of text as glyphs, in the order in which it is read, with the font's kerning, and OpenType features as they
   * are listed: `tnum, ss01`, or off: `-liga`.
   */
  readonly shape: (text: string, features: string) => readonly Glyph[];
  readonly outlines: (glyph: number) => readonly Outline[];
  /** The same as the font draws it. */
  readonly path: (glyph: number) => GlyphPath;
}

export interface Found {
  readonly face: Face;
  /** What the face is, where it is not what was asked for. */
  readonly instead: FontChoice | null;
}

/** The fonts at hand. A set does not change: when a font comes in there is a new one. */
export interface Fonts {
  /** null while no face is here at all, not even one to stand in. */
  readonly find: (choice: FontChoice) => Found | null;
}

export const NO_FONTS: Fonts = { find: () => null };
