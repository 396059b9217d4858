/** Glyphs of a line that is not laid out yet. */
import type { Glyph } from './types';

export interface Piece {
  readonly glyph: Glyph;
  readonly to: number;
  /** With tracking and pairs, in pixels. */
  readonly advance: number;
}

export const isSpace = (text: string, at: number): boolean => /[ \t]/.test(text[at] ?? '');

export const advanceOf = (pieces: readonly Piece[]): number => pieces.reduce((sum, { advance }) => sum + advance, 0);
