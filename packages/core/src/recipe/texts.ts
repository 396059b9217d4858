/** The parts of texts in a recipe: which there are, and which a card is asked for. */
import type { Params } from '../document/params';
import { lastMade, remembered } from '../document/remembered';
import type { Id } from '../document/types';
import { apply, type Matrix } from '../geometry/matrix';
import type { Reader } from '../motion/reader';
import type { Copy, TextPart, TextUnit } from '../motion/sampler';
import type { PartOfText } from '../type/parts';
import type { Room } from './room';
import type { AskedParts, PlacedPart, SourceKind, Supplies } from './types';

/** The parts of the texts that stand above, at a frame, in the pixels of the run. */
export type TextsAt = (by: TextUnit, frame: number, room: Room, copy?: Copy) => readonly PlacedPart[];
const NONE: readonly PlacedPart[] = [];
export const NO_TEXTS: TextsAt = () => NONE;

/** What stands for a part of a text, or for all there is. */
export const nameOfPart = (part: TextPart | undefined): string =>
  part === undefined ? '' : part === 'rest' ? part : `${part.by} ${part.index} ${part.card}`;

const everyOne = remembered((all: readonly PlacedPart[]): AskedParts['asked'] =>
  all.map(({ part }, order) => ({ order, part })),
);

/** The parts of texts as a step is asked for them: where it is asked for one, what of each lies in that one. */
export const askedOf = (
  texts: (by: TextUnit) => readonly PlacedPart[],
  by: TextUnit,
  wanted: TextPart | undefined,
): AskedParts => {
  const all = texts(by);
  if (!wanted) return { all, asked: everyOne(all) };
  const asked: { order: number; part: PlacedPart['part'] }[] = [];
  if (wanted === 'rest') return { all, asked };
  const { card } = wanted;
  const outer = texts(wanted.by).find(({ part }) => part.card === card && part.index === wanted.index);
  if (!outer) return { all, asked };
  for (const [order, { part, from, to }] of all.entries()) {
    if (part.card !== card || to <= outer.from || from >= outer.to) continue;
    asked.push({ order, part: from <= outer.from && to >= outer.to ? outer.part : part });
  }
  return { all, asked };
};

/** A part of a text that is moved with its letters. */
export const partThrough = (m: Matrix, part: PlacedPart): PlacedPart => {
  const wider = Math.hypot(m[0], m[1]);
  const higher = Math.hypot(m[2], m[3]);
  return {
    ...part,
    middle: apply(m, part.middle),
    base: apply(m, part.base),
    width: part.width * wider,
    space: part.space * wider,
    rise: part.rise * higher,
    fall: part.fall * higher,
    word: apply(m, part.word),
  };
};

/** Of one text: each unit has a list of its own. */
const placedLast = lastMade<readonly PartOfText[], readonly PlacedPart[]>();
const placedParts = (parts: readonly PartOfText[], card: Id, by: TextUnit): readonly PlacedPart[] =>
  placedLast(parts, [card], () =>
    parts.map(({ text, from, to, base, width, space, rise, fall, word, box }, index) => ({
      text,
      from,
      to,
      base,
      width,
      space,
      rise,
      fall,
      word,
      middle: [(box.left + box.right) / 2, (box.top + box.bottom) / 2],
      part: { card, by, index },
    })),
  );

/** The parts of what a source says. */
export const textsOf = (kind: SourceKind, id: Id, values: Reader<Params>, supplies: Supplies): TextsAt => {
  const parts = 'parts' in kind ? kind.parts : undefined;
  return parts ? (by, frame, _, copy) => placedParts(parts(values.at(frame, copy), supplies, by), id, by) : NO_TEXTS;
};
