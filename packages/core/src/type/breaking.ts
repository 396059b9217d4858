import { advanceOf, isSpace, type Piece } from './pieces';

/** Runs of pieces that fit the width, broken where lines may end; a word that is too long has a line to itself. */
export const broken = (pieces: readonly Piece[], text: string, wrap: number): Piece[][] => {
  const lines: Piece[][] = [];
  let line: Piece[] = [];
  let width = 0;
  /** How many of them stand before the last place to break at. */
  let before = 0;
  for (const piece of pieces) {
    const space = isSpace(text, piece.glyph.cluster);
    if (!space && width + piece.advance > wrap + 1e-6 && before > 0) {
      lines.push(line.slice(0, before));
      line = line.slice(before);
      width = advanceOf(line);
      before = 0;
    }
    line.push(piece);
    width += piece.advance;
    if (space || piece.glyph.breaks) before = line.length;
  }
  return [...lines, line];
};
