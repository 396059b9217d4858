/** Cards, compiled: what each gives at a frame, how they follow each other, and what is worked out once. */
import { lastMade, remembered } from '../document/remembered';
import type { Item } from '../document/types';
import type { Copy } from '../motion/sampler';
import type { Fonts } from '../type/types';
import { isFull, type Room, type Shortage, tell } from './room';
import { nameOfPart, NO_TEXTS, type TextsAt } from './texts';
import { EMPTY, type Flow } from './types';

/** Groups inside groups. */
export const MOST_DEPTH = 32;

/** What stands above, at a frame; `copy` is that of the repeater that asks. */
export type FlowAt = (frame: number, room: Room, copy?: Copy) => Flow;
export interface Card {
  readonly at: FlowAt;
  readonly constant: boolean;
  /** Whether each copy of a repeater below gets something of its own. */
  readonly perCopy: boolean;
  readonly texts: TextsAt;
}

/** A flow that does not depend on the frame is worked out once. */
export const once = (card: Card): Card => {
  if (!card.constant) return card;
  interface Known {
    readonly flow: Flow;
    readonly shapes: number;
    readonly work: number;
    readonly short: Shortage | null;
    readonly told: readonly string[];
  }
  const all = new Map<string, Known>();
  return {
    ...card,
    at: (frame, room, copy) => {
      const name = nameOfPart(copy?.part);
      const known = all.get(name);
      // It costs what it cost the first time, so that what has room does not depend on what was worked out before.
      if (known && !isFull(room) && known.shapes <= room.shapes && known.work <= room.work) {
        room.shapes -= known.shapes;
        room.work -= known.work;
        room.short ??= known.short;
        for (const message of known.told) tell(room, message);
        return known.flow;
      }
      const { shapes, work } = room;
      const own: Room = { ...room, short: isFull(room) ? room.short : null, told: [] };
      const flow = card.at(frame, own, copy);
      // One that ran out of room would be kept short for ever.
      if (!isFull(own)) {
        all.set(name, { flow, shapes: shapes - own.shapes, work: work - own.work, short: own.short, told: own.told });
      }
      for (const message of own.told) tell(room, message);
      Object.assign(room, { shapes: own.shapes, work: own.work, short: own.short ?? room.short });
      return flow;
    },
  };
};

/** What a card needs to know of the cards that it is made from: each may vary by frame and by copy. */
export const madeOf = (...of: readonly (Pick<Card, 'constant' | 'perCopy'> | null)[]) => ({
  constant: of.every((c) => c?.constant ?? true),
  perCopy: of.some((c) => c?.perCopy ?? false),
});

export const NOTHING: Card = { constant: true, perCopy: false, texts: NO_TEXTS, at: () => EMPTY };

/** One card after another. */
export const followed = (above: Card, own: Card): Card => ({
  ...madeOf(above, own),
  texts: (by, frame, room, copy) => {
    const [first, more] = [above.texts(by, frame, room, copy), own.texts(by, frame, room, copy)];
    return more.length === 0 ? first : first.length === 0 ? more : [...first, ...more];
  },
  at: (frame, room, copy) => {
    const flow = above.at(frame, room, copy);
    const more = own.at(frame, room, copy);
    return { shapes: [...flow.shapes, ...more.shapes], marks: [...flow.marks, ...more.marks] };
  },
});

/** A run of compiled cards: what the last of them gives, and the runs that go on from it. */
export interface Run {
  readonly card: Card;
  /** The kind of the last of them. */
  readonly last: string | null;
  readonly next: (item: Item, from: readonly unknown[], make: () => Run) => Run;
}
export const runOf = (card: Card, last: string | null): Run => ({ card, last, next: lastMade() });

/** By the fonts they were compiled with. Runs that start with the same cards share them, and what is constant in them. */
export const firstRun = remembered<Fonts, Run>(() => runOf(NOTHING, null));
