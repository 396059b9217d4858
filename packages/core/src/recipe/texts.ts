/** The parts of texts in a recipe: which there are, and which a card is asked for. */
import type { Params } from '../document/params';
import type { Id } from '../document/types';
import type { Reader } from '../motion/reader';
import type { Copy, TextPart, TextUnit } from '../motion/sampler';
import type { AskedPart, PlacedPart, SourceKind, Supplies } from './types';

/** The parts of the texts that stand above, at a frame, in the pixels of the run. */
export type TextsAt = (by: TextUnit, frame: number, copy?: Copy) => readonly PlacedPart[];
export const NO_TEXTS: TextsAt = () => [];

/** What stands for a part of a text, or for all there is. */
export const nameOfPart = (part: TextPart | undefined): string =>
  part === undefined ? '' : part === 'rest' ? part : `${part.by} ${part.index} ${part.card}`;

/** The parts of texts as a step is asked for them: where it is asked for one, what of each lies in that one. */
export const askedOf = (texts: TextsAt, by: TextUnit, frame: number, copy: Copy | undefined): readonly AskedPart[] => {
  const asked = copy?.part;
  const parts = texts(by, frame, copy);
  if (!asked) return parts;
  const outer =
    asked === 'rest'
      ? undefined
      : texts(asked.by, frame, copy).find(({ part }) => part.card === asked.card && part.index === asked.index);
  return parts.map((own): AskedPart => {
    if (!outer || own.part.card !== outer.part.card || own.to <= outer.from || own.from >= outer.to) {
      return { ...own, part: null };
    }
    return own.from <= outer.from && own.to >= outer.to ? { ...own, part: outer.part } : own;
  });
};

/** The parts of what a source says. */
export const textsOf = (kind: SourceKind, id: Id, values: Reader<Params>, supplies: Supplies): TextsAt => {
  const parts = 'parts' in kind ? kind.parts : undefined;
  if (!parts) return NO_TEXTS;
  return (by, frame, copy) =>
    parts(values.at(frame, copy), supplies, by).map(({ text, from, to, base, word, box }, index) => ({
      text,
      from,
      to,
      base,
      word,
      middle: [(box.left + box.right) / 2, (box.top + box.bottom) / 2],
      part: { card: id, by, index },
    }));
};
