import { advanceOf, isSpace, type Piece } from './pieces';

const SOFT_HYPHEN = '\u00ad';

/**
 * Runs of pieces that fit the width, broken where lines may end; a word that is too long has a line to itself. A soft hyphen
 * is nothing but where a line ends at it: there it is the hyphen.
 */
export const broken = (pieces: readonly Piece[], text: string, wrap: number, hyphen: () => Piece): Piece[][] => {
  const lines: Piece[][] = [];
  let line: Piece[] = [];
  let width = 0;
  /** How many of them stand before the last place to break at. */
  let before = 0;
  const isSoft = (piece: Piece | undefined): boolean =>
    piece !== undefined && text[piece.glyph.cluster] === SOFT_HYPHEN;
  for (const piece of pieces) {
    const space = isSpace(text, piece.glyph.cluster);
    if (!space && width + piece.advance > wrap + 1e-6 && before > 0) {
      const ended = line.slice(0, before);
      const last = ended.at(-1)!;
      if (isSoft(last)) {
        const { glyph, advance } = hyphen();
        ended[before - 1] = {
          ...last,
          glyph: { ...glyph, cluster: last.glyph.cluster, level: last.glyph.level },
          advance,
        };
      }
      lines.push(ended);
      line = line.slice(before);
      width = advanceOf(line);
      before = 0;
    }
    line.push(piece);
    width += piece.advance;
    const ends = isSoft(piece) ? width + hyphen().advance <= wrap + 1e-6 : space || piece.glyph.breaks === 1;
    if (ends) before = line.length;
  }
  return [...lines, line];
};
