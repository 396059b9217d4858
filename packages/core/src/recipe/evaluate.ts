/**
 * Recipes, compiled: cards turned into functions of the frame. A card is asked for what stands above it
 * at whatever frame it likes, which is what a delay per copy rests on.
 */
import { type Params, PLACE, type Values } from '../document/params';
import type { DrawingLayer, Id, Item } from '../document/types';
import { IDENTITY, type Matrix, multiply, placed } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import { type Computing, reader, type Reader } from '../motion/reader';
import type { Copy } from '../motion/sampler';
import type { Fonts } from '../type/types';
import { faded, markThrough, shapeThrough } from './marks';
import { mask } from './mask';
import { isFull, type Room, type Shortage, takeAreas, takeShapes, takeWork, workOf, workOfMark } from './room';
import { kindOf } from './table';
import { EMPTY, type Flow, type Mark, type PaintKind, type Shape, type StepKind } from './types';

/** Groups inside groups. */
export const MOST_DEPTH = 32;

/** What stands above, at a frame; `copy` is that of the repeater that asks. */
type FlowAt = (frame: number, room: Room, copy?: Copy) => Flow;
interface Card {
  readonly at: FlowAt;
  readonly constant: boolean;
  /** Whether each copy of a repeater below gets something of its own. */
  readonly perCopy: boolean;
}

/** A flow that does not depend on the frame is worked out once. */
const once = (card: Card): Card => {
  if (!card.constant) return card;
  let known: {
    readonly flow: Flow;
    readonly shapes: number;
    readonly work: number;
    readonly short: Shortage | null;
  } | null = null;
  return {
    ...card,
    at: (frame, room) => {
      // It costs what it cost the first time, so that what has room does not depend on what was worked out before.
      if (known && !isFull(room) && known.shapes <= room.shapes && known.work <= room.work) {
        room.shapes -= known.shapes;
        room.work -= known.work;
        room.short ??= known.short;
        return known.flow;
      }
      const { shapes, work } = room;
      const own: Room = { shapes, work, short: isFull(room) ? room.short : null };
      const flow = card.at(frame, own);
      // One that ran out of room would be kept short for ever.
      if (!isFull(own)) known = { flow, shapes: shapes - own.shapes, work: work - own.work, short: own.short };
      Object.assign(room, { shapes: own.shapes, work: own.work, short: own.short ?? room.short });
      return flow;
    },
  };
};

const painted = (kind: PaintKind, shapes: readonly Shape[], values: Values<Params>, room: Room): readonly Mark[] => {
  const marks: Mark[] = [];
  let run: Outline[] = [];
  shapes.forEach((shape, i) => {
    run.push(...shape.outlines);
    const next = shapes[i + 1];
    if (next && next.alpha === shape.alpha) return;
    const mark = shape.alpha > 0 ? kind.mark(run, shape.alpha, values) : null;
    if (mark && mark.alpha > 0 && takeWork(room, workOfMark(mark))) marks.push(mark);
    run = [];
  });
  return marks;
};

const stepAt =
  (kind: StepKind, above: Card, values: Reader<Params>): FlowAt =>
  (frame, room, copy) => {
    // Copies without a delay all ask for the same frame.
    let last: { frame: number; copy: Copy | undefined; flow: Flow } | undefined;
    return kind.apply(
      {
        frame,
        at: (f, own = copy) => {
          const known = last?.frame === f && (!above.perCopy || last.copy === own);
          if (!last || !known) last = { frame: f, copy: own, flow: above.at(f, room, own) };
          return last.flow;
        },
        take: (count, work) => takeShapes(room, count) && takeWork(room, work),
        takeAreas: (work) => takeAreas(room, work),
      },
      values.at(frame, copy),
    );
  };

/** What the cards of one recipe are compiled from. */
interface Kitchen {
  readonly items: DrawingLayer['items'];
  readonly fonts: Fonts;
  /** The formulas of a card. */
  readonly computing: (item: Id) => Computing | undefined;
}

/** What a card needs to know of the cards that it is made from: each may vary by frame and by copy. */
const alike = (...of: readonly (Pick<Card, 'constant' | 'perCopy'> | null)[]) => ({
  constant: of.every((c) => c?.constant ?? true),
  perCopy: of.some((c) => c?.perCopy ?? false),
});

const compileInner = (item: Item, kitchen: Kitchen, depth: number): Card | null =>
  depth >= MOST_DEPTH ? null : compileCards(item.children ?? [], kitchen, depth + 1);

const compileGroup = (item: Item, kitchen: Kitchen, depth: number): Card => {
  const place = reader(PLACE, item.params, kitchen.computing(item.id));
  const inner = compileInner(item, kitchen, depth);
  return {
    ...alike(place, inner),
    at: (frame, room, copy) => {
      const { shapes, marks } = inner ? inner.at(frame, room, copy) : EMPTY;
      const v = place.at(frame, copy);
      const m = placed(v);
      const moved = shapes.reduce((sum, s) => sum + workOf(s.outlines), marks.length);
      if (!takeWork(room, moved)) return EMPTY;
      return {
        shapes: shapes.map((s) => shapeThrough(m, s, v.opacity)),
        marks: faded(
          marks.map((mark) => markThrough(m, mark)),
          v.opacity,
        ),
      };
    },
  };
};

/** Cuts the marks above by outlines of its own; the outlines above go on as they are. */
const compileMask = (item: Item, above: Card, kitchen: Kitchen, depth: number): Card => {
  const values = reader(mask.params, item.params, kitchen.computing(item.id));
  const inner = compileInner(item, kitchen, depth);
  return {
    ...alike(above, values, inner),
    at: (frame, room, copy) => {
      const flow = above.at(frame, room, copy);
      if (flow.marks.length === 0) return flow;
      const outlines = inner?.at(frame, room, copy).shapes.flatMap((s) => s.outlines) ?? [];
      const { mode } = values.at(frame, copy);
      const clip = { outlines, matrix: IDENTITY, mode };
      return { ...flow, marks: [{ op: 'group', marks: flow.marks, alpha: 1, blend: 'normal', clip }] };
    },
  };
};

/** From the pixels of a card's outlines to its layer's: through the groups it stands in. */
export const cardMatrix = (
  items: DrawingLayer['items'],
  id: Id,
  frame: number,
  computing: Kitchen['computing'] = () => undefined,
): Matrix => {
  let m: Matrix = IDENTITY;
  for (let at: Id | undefined = id, depth = 0; at !== undefined && depth <= MOST_DEPTH; depth++) {
    const inner: Id = at;
    at = Object.keys(items).find((other) => items[other]?.children?.includes(inner));
    const group = at === undefined ? undefined : items[at];
    if (group?.kind === 'group') m = multiply(placed(reader(PLACE, group.params, computing(group.id)).at(frame)), m);
  }
  return m;
};

/** What a card adds below `above`. */
const compileCard = (item: Item, above: Card, kitchen: Kitchen, depth: number): Card => {
  const kind = kindOf(item.kind);
  if (kind.role === 'group') {
    if (item.kind === mask.kind) return compileMask(item, above, kitchen, depth);
    return joined(above, compileGroup(item, kitchen, depth));
  }
  const values = reader(kind.params, item.params, kitchen.computing(item.id));
  switch (kind.role) {
    case 'source':
      return joined(
        above,
        once({
          ...alike(values),
          at: (frame, room, copy) => {
            if (room.short === 'work') return EMPTY;
            const outlines = kind.outlines(values.at(frame, copy), kitchen.fonts);
            if (!takeWork(room, workOf(outlines))) return EMPTY;
            return { shapes: outlines.length > 0 ? [{ outlines, alpha: 1 }] : [], marks: [] };
          },
        }),
      );
    case 'step': {
      const both = alike(above, values);
      // Within a repeater the copies are its own.
      return { ...both, perCopy: kind.copies ? values.perCopy : both.perCopy, at: stepAt(kind, above, values) };
    }
    case 'paint':
      return {
        ...alike(above, values),
        at: (frame, room, copy) => {
          const flow = above.at(frame, room, copy);
          return { ...flow, marks: [...flow.marks, ...painted(kind, flow.shapes, values.at(frame, copy), room)] };
        },
      };
  }
};

const joined = (above: Card, own: Card): Card => ({
  ...alike(above, own),
  at: (frame, room, copy) => {
    const flow = above.at(frame, room, copy);
    const more = own.at(frame, room, copy);
    return { shapes: [...flow.shapes, ...more.shapes], marks: [...flow.marks, ...more.marks] };
  },
});

/** A run of compiled cards: what the last of them gives, and the runs that go on from it. */
interface Run {
  readonly card: Card;
  readonly next: WeakMap<Item, { readonly run: Run; readonly from: readonly unknown[] }>;
}
/** By the fonts they were compiled with. Runs that start with the same cards share them, and what is constant in them. */
const runs = new WeakMap<Fonts, Run>();

const firstRun = (fonts: Fonts): Run => {
  let run = runs.get(fonts);
  if (!run) runs.set(fonts, (run = { card: { constant: true, perCopy: false, at: () => EMPTY }, next: new WeakMap() }));
  return run;
};

/** All that stands in a card, to know whether it is still what was compiled. */
const innerOf = (item: Item, items: DrawingLayer['items'], depth: number): Item[] =>
  (item.children ?? []).flatMap((id) => {
    const inner = items[id];
    return inner ? [inner, ...(depth < MOST_DEPTH ? innerOf(inner, items, depth + 1) : [])] : [];
  });

/** What the formulas of a card give: others than before make another card of it. */
const computedOf = (item: Item, kitchen: Kitchen): unknown[] => {
  const computing = kitchen.computing(item.id);
  return computing ? Object.keys(kindOf(item.kind).params).flatMap((key) => computing(key) ?? []) : [];
};

const compileCards = (ids: readonly Id[], kitchen: Kitchen, depth: number): Card => {
  let run = firstRun(kitchen.fonts);
  for (const id of ids) {
    const item = kitchen.items[id];
    if (!item?.on) continue;
    const inner = innerOf(item, kitchen.items, depth);
    const from = [...inner, ...[item, ...inner].flatMap((card) => computedOf(card, kitchen))];
    const known = run.next.get(item);
    if (known?.from.length === from.length && known.from.every((own, i) => own === from[i])) {
      run = known.run;
      continue;
    }
    const card = once(compileCard(item, run.card, kitchen, depth));
    const next: Run = { card, next: new WeakMap() };
    run.next.set(item, { run: next, from });
    run = next;
  }
  return run.card;
};

/** The flow at the end of a list of cards, as a function of the frame. */
export const compileRecipe = (
  ids: readonly Id[],
  items: DrawingLayer['items'],
  fonts: Fonts,
  computing: Kitchen['computing'] = () => undefined,
): { readonly at: FlowAt; readonly constant: boolean } => compileCards(ids, { items, fonts, computing }, 0);
