/** Edits to cels: hand-drawn frames, one after another. The card that they are in is named by `CardRef`, each of them by its own id. */
import { wholeWithin } from '../document/fitting';
import { type MakeId, newItem } from '../document/make';
import { type Edit, plain, together } from '../document/patches';
import type { DrawingLayer, Id, Item } from '../document/types';
import { reader } from '../motion/reader';
import { cel as celKind, holdOf } from '../recipe/groups/cel';
import { celAt, cels as celsKind } from '../recipe/groups/cels';
import { brush as brushKind } from '../recipe/sources/brush';
import { type DrawingDraft, drawingIn, itemIn } from './find';
import { copiesOf } from './layers';
import { addCards, type CardRef, within } from './recipe';

const { min: LEAST, max: MOST } = celKind.params.hold;
/** Frames that a cel may be held. */
const heldFor = (frames: number): number => wholeWithin(frames, LEAST, MOST);

/** The cels of a card, those that are switched on, in order. */
export const celsIn = (layer: DrawingLayer | DrawingDraft, cels: Id): readonly Id[] =>
  (layer.items[cels]?.children ?? []).filter((id) => layer.items[id]?.on);

const heldBy = (layer: DrawingLayer, id: Id): number => holdOf(layer.items[id] as Item);

type Played = Parameters<typeof celAt>[0];
/** The cel that shows at a frame by the values of its card; null for none. */
export const celShown = (layer: DrawingLayer, cels: Id, values: Played, frame: number): Id | null => {
  const list = celsIn(layer, cels);
  const at = celAt(
    values,
    list.map((id) => heldBy(layer, id)),
    frame,
  );
  return at === null ? null : (list[at] ?? null);
};

/** The first frame of each cel as they are shown one by one, and the frame after the last. */
export const celFrames = (layer: DrawingLayer, cels: Id, start: number): readonly number[] => {
  const frames = [start];
  for (const id of celsIn(layer, cels)) frames.push((frames.at(-1) ?? start) + heldBy(layer, id));
  return frames;
};

/** From one on they begin anew, over and over. */
export const loopCels = (ref: CardRef, layer: DrawingLayer, from: Id): Edit => ({
  label: 'Loop cels',
  change: (draft) => {
    const item = itemIn(drawingIn(draft, ref.scene, ref.layer), ref.item);
    const again = celsIn(layer, ref.item).indexOf(from) + 1;
    const { ends } = reader(celsKind.params, plain<Item>(item).params).at(0);
    Object.assign(item.params, {
      by: { value: 'time' },
      ends: { value: ends === 'swing' ? 'swing' : 'loop' },
      again: { value: Math.max(1, again) },
    });
  },
});

/** The first card with cels in a layer. */
export const celsCardOf = (layer: DrawingLayer): Id | null =>
  Object.values(layer.items).find((item) => item.kind === celsKind.kind)?.id ?? null;

/** The first frames of the cels of a layer that are shown one by one; null where it has none. */
export const celFramesOf = (layer: DrawingLayer): readonly number[] | null => {
  const cels = celsCardOf(layer);
  const item = cels === null ? undefined : layer.items[cels];
  if (cels === null || !item) return null;
  const { by, start } = reader(celsKind.params, item.params).at(0);
  return by === 'time' ? celFrames(layer, cels, start).slice(0, -1) : null;
};

/** Cards that a new drawing by hand is made of: one empty cel. */
export const newCels = (makeId: MakeId, start: number): Item[] => {
  const strokes = newItem(makeId(), brushKind.kind);
  const first: Item = { ...newItem(makeId(), celKind.kind), children: [strokes.id] };
  return [{ ...newItem(makeId(), celsKind.kind, { start }), children: [first.id] }, first, strokes];
};

const holderIn = (draft: Parameters<Edit['change']>[0], { scene, layer, item }: CardRef) => {
  const own = drawingIn(draft, scene, layer);
  const holder = itemIn(own, item);
  return { own, holder, list: (holder.children ??= []) };
};

const isCel = ({ kind }: Pick<Item, 'kind'>): boolean => kind === celKind.kind;

/** A cel with all that stands in it, once more: the copy first. Any other card that is shown as one becomes one. */
const copied = (layer: DrawingDraft, id: Id, makeId: MakeId): readonly Item[] => {
  const bare = plain<DrawingLayer>(layer);
  const items = Object.fromEntries(within(bare.items, id).map((item) => [item.id, item]));
  const [copy] = copiesOf([{ ...bare, items, recipe: [id] }], makeId) as [DrawingLayer];
  const all = within(copy.items, copy.recipe[0] as Id);
  const first = all[0] as Item;
  return isCel(first) ? all : [{ ...newItem(makeId(), celKind.kind), children: [first.id] }, ...all];
};

/** What a cel begins as: empty, as the one before it, or with a card behind the brush, given with all that stands in it. */
export type CelBegins = 'empty' | 'copy' | readonly [ground: Item, ...within: Item[]];

const LABELS = { empty: 'Add a cel', copy: 'Go on with a cel' } as const;

/**
 * A cel after another one, or before all: an empty one, or one that begins as that is. Held as long as that, or as long as is said, of which
 * that one then loses as much where it goes on for longer.
 */
export const addCel = (
  ref: CardRef,
  after: Id | null,
  makeId: MakeId,
  how: { readonly begins: CelBegins; readonly hold?: number; readonly taken?: number },
): Edit => ({
  label: typeof how.begins === 'string' ? LABELS[how.begins] : 'Paint over a frame',
  change: (draft) => {
    const { own, list } = holderIn(draft, ref);
    const before = after === null ? undefined : own.items[after];
    const hold = how.hold ?? (before ? holdOf(plain<Item>(before)) : celKind.params.hold.default);
    const strokes = newItem(makeId(), brushKind.kind);
    const ground = typeof how.begins === 'string' ? [] : how.begins;
    const drawn = [...ground.slice(0, 1), strokes].map(({ id }) => id);
    const items =
      how.begins === 'copy' && after !== null
        ? copied(own, after, makeId)
        : [{ ...newItem(makeId(), celKind.kind), children: drawn }, ...ground, strokes];
    const [bare, ...rest] = items as [Item, ...Item[]];
    const made: Item = { ...bare, params: { ...bare.params, hold: { value: heldFor(hold) } } };
    addCards(own, [made, ...rest]);
    if (before && isCel(before) && how.taken !== undefined) {
      before.params.hold = { value: heldFor(holdOf(plain<Item>(before)) - how.taken) };
    }
    list.splice(after === null ? 0 : list.indexOf(after) + 1, 0, made.id);
  },
});

/**
 * A new cel where the playhead stands, and the frame at which it begins. Within a cel that is held it takes over the rest of that; at the
 * beginning of one it follows that; after all of them the last is held until there.
 */
export const celAtPlayhead = (
  ref: CardRef,
  layer: DrawingLayer,
  at: { readonly frame: number; readonly start: number },
  begins: CelBegins,
  makeId: MakeId,
): { readonly edit: Edit; readonly frame: number } => {
  const list = celsIn(layer, ref.item);
  const frames = celFrames(layer, ref.item, at.start);
  const last = list.length - 1;
  const lastFrom = frames[last];
  if (lastFrom === undefined)
    return { edit: addCel(ref, null, makeId, { begins: begins === 'copy' ? 'empty' : begins }), frame: at.start };
  const whole = Math.floor(at.frame);
  const end = frames[last + 1] as number;
  if (whole >= end) {
    const held = holdCels(ref, [list[last] as Id], whole - lastFrom);
    const hold = heldBy(layer, list[last] as Id);
    const made = addCel(ref, list[last] as Id, makeId, { begins, hold });
    return { edit: together(made.label, [held, made]), frame: whole };
  }
  const i = Math.max(
    0,
    frames.findLastIndex((from) => from <= whole),
  );
  const [from, to] = [frames[i] as number, frames[i + 1] as number];
  const rest = to - whole;
  const how = whole > from ? { begins, hold: rest, taken: rest } : { begins };
  return { edit: addCel(ref, list[i] as Id, makeId, how), frame: whole > from ? whole : to };
};

/** Holds cels for so many frames each. */
export const holdCels = ({ scene, layer }: CardRef, ids: readonly Id[], hold: number): Edit => ({
  label: 'Hold cels',
  change: (draft) => {
    const own = drawingIn(draft, scene, layer);
    for (const id of ids) {
      const item = own.items[id];
      if (item && isCel(item)) item.params.hold = { value: heldFor(hold) };
    }
  },
});

export const reverseCels = (ref: CardRef): Edit => ({
  label: 'Reverse cels',
  change: (draft) => {
    const { holder, list } = holderIn(draft, ref);
    holder.children = list.toReversed();
  },
});

/** Appends a run of cels once more, in order or back again without the last: as copies, each free to be drawn on. */
export const repeatCels = (ref: CardRef, ids: readonly Id[], back: boolean, makeId: MakeId): Edit => ({
  label: back ? 'Cels back again' : 'Repeat cels',
  change: (draft) => {
    const { own, list } = holderIn(draft, ref);
    const run = list.filter((id) => ids.includes(id));
    const again = back ? run.toReversed().slice(1) : run;
    const copies = again.map((id) => copied(own, id, makeId));
    addCards(own, copies.flat());
    const last = Math.max(...run.map((id) => list.indexOf(id)));
    list.splice(last + 1, 0, ...copies.map(([first]) => (first as Item).id));
  },
});

/** Leaves out every second of the cels after one: what is painted on comes in larger and larger pieces from there. */
export const hurryCels = (ref: CardRef, from: Id): Edit => ({
  label: 'Faster from a cel on',
  change: (draft) => {
    const { own, holder, list } = holderIn(draft, ref);
    const at = list.indexOf(from);
    // The last of them is the whole: it stays.
    const gone = list.filter((_, i) => i > at && i < list.length - 1 && (i - at) % 2 === 1);
    holder.children = list.filter((id) => !gone.includes(id));
    for (const id of gone) for (const item of within(plain<DrawingLayer>(own).items, id)) delete own.items[item.id];
  },
});

/** Takes all strokes from cels. */
export const clearCels = ({ scene, layer }: CardRef, ids: readonly Id[]): Edit => ({
  label: 'Clear cels',
  change: (draft) => {
    const own = drawingIn(draft, scene, layer);
    for (const id of ids) {
      for (const item of within(plain<DrawingLayer>(own).items, id)) {
        if (item.kind === brushKind.kind) itemIn(own, item.id).params.strokes = { value: [] };
      }
    }
  },
});
