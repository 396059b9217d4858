/**
 * Recipes, compiled: cards turned into functions of the frame. A card is asked for what stands above it
 * at whatever frame it likes, which is what a delay per copy rests on.
 */
import { type Params, type Values } from '../document/params';
import type { DrawingLayer, Id, Item, Value } from '../document/types';
import { IDENTITY, inverted, multiply, placed } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import { type Computing, reader, type Reader } from '../motion/reader';
import type { Copy, TextUnit } from '../motion/sampler';
import { type Fonts, NO_FONTS } from '../type/types';
import { throughBoth } from '../geometry/through';
import { type Card, firstRun, type FlowAt, followed, madeOf, MOST_DEPTH, NOTHING, once, type Run, runOf } from './card';
import type { GROUP } from './groups/group';
import { flowThrough, markThrough } from './marks';
import {
  type Picture,
  type Room,
  takeAreas,
  takeShapes,
  takeWork,
  tell,
  workOf,
  workOfMark,
  workOfMarks,
} from './room';
import { askedOf, NO_TEXTS, partThrough, type TextsAt, textsOf } from './texts';
import { type Asks, asksOf, kindOf, paramsOf } from './table';
import {
  type AreaRoom,
  type CoverKind,
  EMPTY,
  type Flow,
  type GroupKind,
  type Mark,
  type PaintKind,
  type PlacedPart,
  type Settings,
  type Shape,
  type SourceKind,
  type StepKind,
  type Supplies,
} from './types';

const painted = (kind: PaintKind, shapes: readonly Shape[], values: Values<Params>, room: Room): readonly Mark[] => {
  const marks: Mark[] = [];
  const each = kind.each?.(values);
  let run: Outline[] = [];
  shapes.forEach((shape, i) => {
    run.push(...shape.outlines);
    const next = shapes[i + 1];
    if (next && next.alpha === shape.alpha && !each) return;
    const own = each ? each(i, shapes.length) : values;
    const mark =
      shape.alpha > 0 && run.length > 0 ? kind.mark(run, shape.alpha, own, (work) => takeWork(room, work)) : null;
    if (mark && mark.alpha > 0 && takeWork(room, workOfMark(mark))) marks.push(mark);
    run = [];
  });
  return marks;
};

const areaRoom = (room: Room): AreaRoom => ({
  take: (count, work) => takeShapes(room, count) && takeWork(room, work),
  takeAreas: (work) => takeAreas(room, work),
});

/** What the cards in another give: all of it, whichever part of the texts above is asked for. */
const ownAt = (inner: Card | null | undefined, frame: number, room: Room, copy: Copy | undefined): Flow => {
  const whole = copy?.part ? { order: copy.order, count: copy.count } : copy;
  return inner?.at(frame, room, whole) ?? EMPTY;
};

const stepAt =
  (kind: StepKind, above: Card, values: Reader<Params>, inner: Card | null, fonts: Fonts): FlowAt =>
  (frame, room, copy) => {
    // Copies without a delay all ask for the same frame.
    let last: { frame: number; copy: Copy | undefined; flow: Flow } | undefined;
    return kind.apply(
      {
        frame,
        ...(copy?.part && { part: copy.part }),
        fonts,
        texts: (by) => askedOf((unit) => above.texts(unit, frame, room, copy), by, copy?.part),
        own: ownAt(inner, frame, room, copy),
        at: (f, given = copy) => {
          // Copies of a part of a text are copies of that part.
          const own = given && copy?.part && !given.part ? { ...given, part: copy.part } : given;
          const same = last?.copy === own || (!above.perCopy && last?.copy?.part === own?.part);
          const known = last?.frame === f && same;
          if (!last || !known) last = { frame: f, copy: own, flow: above.at(f, room, own) };
          return last.flow;
        },
        since: (then) => {
          const back = inverted(room.place);
          return back ? throughBoth(back, throughBoth(room.around.since(then, frame), room.place)) : IDENTITY;
        },
        ...areaRoom(room),
      },
      values.at(frame, copy),
      (f, own = copy) => values.at(f, own),
    );
  };

/** The parts of texts where a step puts them: once for a frame, however many of them are asked for one by one. */
const stepTexts = (
  moved: NonNullable<StepKind['texts']>,
  above: Card,
  values: Reader<Params>,
  inner: Card | null,
): TextsAt => {
  const alike = !madeOf(above, values, inner).perCopy;
  const last = new Map<TextUnit, { readonly frame: number; readonly parts: readonly PlacedPart[] }>();
  return (by, frame, room, copy) => {
    const known = last.get(by);
    if (alike && known?.frame === frame) return known.parts;
    // What they take room for is taken where the step itself works.
    const own = ownAt(inner, frame, { ...room }, copy);
    const texts = (unit: TextUnit) => above.texts(unit, frame, room, copy);
    const parts = moved({ frame, texts, own }, values.at(frame, copy), (f, given = copy) => values.at(f, given), by);
    last.set(by, { frame, parts });
    return parts;
  };
};

/** What the cards of one recipe are compiled from. */
interface Kitchen {
  readonly items: DrawingLayer['items'];
  readonly supplies: Supplies;
  /** The formulas of a card. */
  readonly computing: (item: Id) => Computing | undefined;
}

const compileInner = (item: Item, kitchen: Kitchen, depth: number): Card | null =>
  depth >= MOST_DEPTH ? null : compileCards(item.children ?? [], kitchen, depth + 1);

const compileGroup = (item: Item, params: typeof GROUP, kitchen: Kitchen, depth: number): Card => {
  const place = reader(params, item.params, kitchen.computing(item.id));
  const inner = compileInner(item, kitchen, depth);
  return {
    ...madeOf(place, inner),
    texts: (by, frame, room, copy) => {
      const m = placed(place.at(frame, copy));
      return (inner?.texts(by, frame, room, copy) ?? []).map((part) => partThrough(m, part));
    },
    at: (frame, room, copy) => {
      const v = place.at(frame, copy);
      const m = placed(v);
      const around = room.place;
      room.place = multiply(around, m);
      const inside = inner ? inner.at(frame, room, copy) : EMPTY;
      room.place = around;
      const moved = inside.shapes.reduce((sum, s) => sum + workOf(s.outlines), inside.marks.length);
      if (!takeWork(room, moved)) return EMPTY;
      return flowThrough(m, inside, v.opacity, v.blend);
    },
  };
};

/** One of the cards in it at a time. */
const compilePicking = (
  item: Item,
  kind: GroupKind,
  picking: NonNullable<GroupKind['picking']>,
  kitchen: Kitchen,
  depth: number,
): Card => {
  const values = reader(kind.params, item.params, kitchen.computing(item.id));
  const inner = (item.children ?? []).flatMap((id) => kitchen.items[id] ?? []).filter(({ on }) => on);
  const cards = inner.map(({ id }) => compileCards([id], kitchen, depth + 1));
  const pick = picking(inner);
  const made = madeOf(values, ...cards);
  return {
    ...made,
    constant: made.constant && !kind.byFrame?.(values.at(0)),
    texts: NO_TEXTS,
    at: (frame, room, copy) => {
      // The texts in it have no parts: they come with what is no text.
      if (copy?.part && copy.part !== 'rest') return EMPTY;
      const shown = pick(values.at(frame, copy), frame);
      return shown === null ? EMPTY : ownAt(cards[shown], frame, room, copy);
    },
  };
};

/** A group by its kind. */
const compileHolder = (item: Item, kind: GroupKind, kitchen: Kitchen, depth: number): Card => {
  if (depth >= MOST_DEPTH) return NOTHING;
  if (kind.picking) return compilePicking(item, kind, kind.picking, kitchen, depth);
  return kind.places
    ? compileGroup(item, kind.params as typeof GROUP, kitchen, depth)
    : (compileInner(item, kitchen, depth) ?? NOTHING);
};

/** What another layer shows, in the pixels of the group that is being evaluated. */
const pictureOf = (layer: Id, frame: number, room: Room): readonly Mark[] | null => {
  const picture = room.around.picture(layer, frame);
  if (typeof picture !== 'string') return broughtHere(picture, room);
  tell(room, picture);
  return null;
};

/** A picture in the pixels of the recipe's layer, in those of the group that is being evaluated. */
const broughtHere = ({ marks, work }: Picture, room: Room): readonly Mark[] => {
  const back = inverted(room.place);
  if (!back || !takeWork(room, work)) return [];
  return marks.map((mark) => markThrough(back, mark));
};

const compileCover = (
  kind: CoverKind,
  item: Item,
  { card: above, last }: Run,
  kitchen: Kitchen,
  depth: number,
): Card => {
  const values = reader(kind.params, item.params, kitchen.computing(item.id));
  const inner = kind.holds ? compileInner(item, kitchen, depth) : null;
  const made = madeOf(above, values, inner);
  return {
    ...made,
    texts: above.texts,
    constant: made.constant && !asksOf(kind.kind).layers && !(values.constant && kind.byFrame?.(values.at(0))),
    at: (frame, room, copy) => {
      const flow = above.at(frame, room, copy);
      if (flow.marks.length === 0) return flow;
      const own = ownAt(inner, frame, room, copy);
      const shown = (layer: Id) => pictureOf(layer, frame, room);
      const by = { own, frame, goesOn: last === kind.kind, room: areaRoom(room), shown };
      if (kind.again && !takeWork(room, workOfMarks(flow.marks))) return flow;
      return { ...flow, marks: kind.cover(flow.marks, values.at(frame, copy), by) };
    },
  };
};

/** The settings in a card, as they are read. */
const settingsIn = (
  item: Item,
  { items, computing }: Pick<Kitchen, 'items' | 'computing'>,
): readonly (readonly [knob: Id, Reader<Params>])[] =>
  (item.children ?? []).flatMap((id) => {
    const own = items[id];
    const kind = own?.on && own.sets !== undefined ? kindOf(own.kind) : undefined;
    return own?.sets !== undefined && kind?.role === 'setting'
      ? [[own.sets, reader(kind.params, own.params, computing(id))] as const]
      : [];
  });

const settingsOf = (readers: ReturnType<typeof settingsIn>, frame: number, copy?: Copy): Settings =>
  Object.fromEntries(readers.map(([knob, of]) => [knob, of.at(frame, copy).value as Value]));

/** What the settings in a card say at a frame, by the knobs that they set. */
export const settingsAt = (
  item: Item,
  items: DrawingLayer['items'],
  frame: number,
  computing: Kitchen['computing'],
): Settings => settingsOf(settingsIn(item, { items, computing }), frame);

const sourceAt =
  (
    kind: SourceKind,
    id: Id,
    values: Reader<Params>,
    settings: ReturnType<typeof settingsIn>,
    supplies: Supplies,
  ): FlowAt =>
  (frame, room, copy) => {
    if (room.short === 'work') return EMPTY;
    const part = copy?.part;
    const isText = 'parts' in kind && kind.parts !== undefined;
    if (part && (isText ? part === 'rest' || part.card !== id : part !== 'rest')) return EMPTY;
    if ('shapes' in kind && kind.shapes) {
      const shapes = kind.shapes(values.at(frame, copy), (frames) => values.at(frame - frames, copy));
      const outlines = shapes.flatMap((shape) => shape.outlines);
      return takeShapes(room, shapes.length) && takeWork(room, workOf(outlines)) ? { shapes, marks: [] } : EMPTY;
    }
    if ('outlines' in kind) {
      const outlines = kind.outlines(values.at(frame, copy), supplies, part === 'rest' ? undefined : part);
      if (outlines.length === 0 || !takeWork(room, workOf(outlines))) return EMPTY;
      return { shapes: [{ outlines, alpha: 1 }], marks: [] };
    }
    const marks = kind.marks(values.at(frame, copy), {
      frame,
      supplies,
      settings: settingsOf(settings, frame, copy),
      behind: (background) => broughtHere(room.around.behind(frame, background), room),
      take: (work) => takeWork(room, work),
      tell: (message) => tell(room, message),
    });
    return marks.length === 0 ? EMPTY : { shapes: [], marks };
  };

/** What a card adds below a run. */
const compileCard = (item: Item, run: Run, kitchen: Kitchen, depth: number): Card => {
  const kind = kindOf(item.kind);
  const above = run.card;
  if (kind.role === 'group') return followed(above, compileHolder(item, kind, kitchen, depth));
  if (kind.role === 'cover') return compileCover(kind, item, run, kitchen, depth);
  if (kind.role === 'setting') return above;
  const values = reader(kind.params, item.params, kitchen.computing(item.id));
  switch (kind.role) {
    case 'source': {
      const settings = settingsIn(item, kitchen);
      const own = madeOf(values, ...settings.map(([, of]) => of));
      const constant = own.constant && !('plays' in kind && kind.plays) && !('behind' in kind && kind.behind);
      const { supplies } = kitchen;
      const texts = textsOf(kind, item.id, values, supplies);
      return followed(
        above,
        once({ ...own, constant, texts, at: sourceAt(kind, item.id, values, settings, supplies) }),
      );
    }
    case 'step': {
      const inner = kind.holds ? compileInner(item, kitchen, depth) : null;
      const both = madeOf(above, values, inner);
      // Within a repeater the copies are its own.
      const constant = both.constant && !kind.byFrame?.(values.at(0));
      return {
        ...both,
        constant,
        perCopy: kind.copies ? values.perCopy : both.perCopy,
        texts: kind.texts ? stepTexts(kind.texts, above, values, inner) : above.texts,
        at: stepAt(kind, above, values, inner, kitchen.supplies.fonts),
      };
    }
    case 'paint':
      return {
        ...madeOf(above, values),
        texts: above.texts,
        at: (frame, room, copy) => {
          const flow = above.at(frame, room, copy);
          return { ...flow, marks: [...flow.marks, ...painted(kind, flow.shapes, values.at(frame, copy), room)] };
        },
      };
  }
};

/** All that stands in a card, to know whether it is still what was compiled. */
const innerOf = (item: Item, items: DrawingLayer['items'], depth: number): Item[] =>
  (item.children ?? []).flatMap((id) => {
    const inner = items[id];
    return inner ? [inner, ...(depth < MOST_DEPTH ? innerOf(inner, items, depth + 1) : [])] : [];
  });

/** What a card is made of besides itself: others than before make another card of it. */
const handedTo = (item: Item, { computing, supplies }: Kitchen): unknown[] => {
  const formulas = computing(item.id);
  const computed = formulas ? Object.keys(paramsOf(item.kind)).flatMap((key) => formulas(key) ?? []) : [];
  return [...computed, ...stampsOf(asksOf(item.kind), supplies)];
};

const compileCards = (ids: readonly Id[], kitchen: Kitchen, depth: number): Card => {
  let run = firstRun(kitchen.supplies.fonts);
  for (const id of ids) {
    const item = kitchen.items[id];
    if (!item?.on) continue;
    const inner = innerOf(item, kitchen.items, depth);
    const from = [...inner, ...[item, ...inner].flatMap((card) => handedTo(card, kitchen))];
    const before = run;
    run = before.next(item, from, () => runOf(once(compileCard(item, before, kitchen, depth)), item.kind));
  }
  return run.card;
};

/** What stands for all that cards which ask for such things are handed. */
export const stampsOf = ({ assets, scenes }: Asks, supplies: Supplies): readonly unknown[] => [
  ...(assets ? [supplies.assets] : []),
  ...(scenes ? supplies.playing : []),
];

/** For recipes that stand in no scene: there is nothing to show or to play. */
export const bareSupplies = (fonts: Fonts = NO_FONTS, assets: Supplies['assets'] = {}): Supplies => ({
  fonts,
  assets,
  rate: { num: 25, den: 1 },
  play: () => 'plays a scene that is gone',
  playing: [],
});

/** The flow at the end of a list of cards, as a function of the frame. */
export const compileRecipe = (
  ids: readonly Id[],
  items: DrawingLayer['items'],
  supplies: Supplies,
  computing: Kitchen['computing'] = () => undefined,
): Pick<Card, 'at' | 'constant' | 'texts'> => compileCards(ids, { items, supplies, computing }, 0);
