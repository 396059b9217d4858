/** Edits to cels: hand-drawn frames, one after another. The card that they are in is named by `CardRef`, each of them by its own id. */
import { type MakeId, newItem } from '../document/make';
import { wholeWithin } from '../document/fitting';
import { BRUSH_LIMITS, LIMITS } from '../document/limits';
import { type Edit, plain, together } from '../document/patches';
import { FAR } from '../document/params';
import type { BrushStroke, DrawingLayer, Id, Item, Point } from '../document/types';
import { reader } from '../motion/reader';
import { simplifiedTo } from '../geometry/simplify';
import { cel as celKind, celAt, cels as celsKind } from '../recipe/cels';
import { brush as brushKind } from '../recipe/sources/brush';
import { kindOf } from '../recipe/table';
import { holdsCards } from '../recipe/types';
import { type DrawingDraft, drawingIn, type ItemDraft, itemIn } from './find';
import { copiesOf } from './layers';
import { type CardRef, within } from './recipe';

/** How many frames a cel is held, by its card. */
export const holdOf = (item: Item | undefined): number => {
  const property = item?.kind === celKind.kind ? item.params.hold : undefined;
  const value = property && 'value' in property ? Number(property.value) : celKind.params.hold.default;
  return item?.kind === celKind.kind ? value : 1;
};

const { min: LEAST, max: MOST } = celKind.params.hold;
/** Frames that a cel may be held. */
const heldFor = (frames: number): number => wholeWithin(frames, LEAST, MOST);

/** The cels of a card, those that are switched on, in order. */
export const celsIn = (layer: DrawingLayer | DrawingDraft, cels: Id): readonly Id[] =>
  (layer.items[cels]?.children ?? []).filter((id) => layer.items[id]?.on);

type Played = Parameters<typeof celAt>[0];
/** The cel that shows at a frame by the values of its card; null for none. */
export const celShown = (layer: DrawingLayer, cels: Id, values: Played, frame: number): Id | null => {
  const list = celsIn(layer, cels);
  const at = celAt(
    values,
    list.map((id) => holdOf(layer.items[id])),
    frame,
  );
  return at === null ? null : (list[at] ?? null);
};

/** The first frame of each cel as they are shown one by one, and the frame after the last. */
export const celFrames = (layer: DrawingLayer, cels: Id, start: number): readonly number[] => {
  const frames = [start];
  for (const id of celsIn(layer, cels)) frames.push((frames.at(-1) ?? start) + holdOf(layer.items[id]));
  return frames;
};

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

const put = (layer: DrawingDraft, items: readonly Item[]): void => {
  for (const item of items) layer.items[item.id] = item as ItemDraft;
};

/** A cel with all that stands in it, once more: the copy first. */
const copied = (layer: DrawingDraft, id: Id, makeId: MakeId): readonly Item[] => {
  const bare = plain<DrawingLayer>(layer);
  const items = Object.fromEntries(within(bare.items, id).map((item) => [item.id, item]));
  const [copy] = copiesOf([{ ...bare, items, recipe: [id] }], makeId) as [DrawingLayer];
  return within(copy.items, copy.recipe[0] as Id);
};

/** Room for more cards in a layer; RangeError where there is none. */
const makeRoom = (layer: DrawingDraft, more: number): void => {
  if (Object.keys(layer.items).length + more <= LIMITS.items) return;
  throw new RangeError(`“${layer.name}” would have more than ${LIMITS.items} cards`);
};

/**
 * A cel after another one, or before all: an empty one, or one that begins as that is. Held as long as that, or as long as is said, of which
 * that one then loses as much where it goes on for longer.
 */
export const addCel = (
  ref: CardRef,
  after: Id | null,
  makeId: MakeId,
  how: { readonly begins: 'empty' | 'copy'; readonly hold?: number; readonly taken?: number },
): Edit => ({
  label: how.begins === 'copy' ? 'Go on with a cel' : 'Add a cel',
  change: (draft) => {
    const { own, list } = holderIn(draft, ref);
    const before = after === null ? undefined : own.items[after];
    const hold = how.hold ?? (before ? holdOf(plain<Item>(before)) : celKind.params.hold.default);
    const strokes = newItem(makeId(), brushKind.kind);
    const items =
      how.begins === 'copy' && after !== null
        ? copied(own, after, makeId)
        : [{ ...newItem(makeId(), celKind.kind), children: [strokes.id] }, strokes];
    const [bare, ...rest] = items as [Item, ...Item[]];
    const made: Item = { ...bare, params: { ...bare.params, hold: { value: heldFor(hold) } } };
    makeRoom(own, items.length);
    put(own, [made, ...rest]);
    if (before && how.taken !== undefined) {
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
  begins: 'empty' | 'copy',
  makeId: MakeId,
): { readonly edit: Edit; readonly frame: number } => {
  const list = celsIn(layer, ref.item);
  const frames = celFrames(layer, ref.item, at.start);
  const last = list.length - 1;
  const lastFrom = frames[last];
  if (lastFrom === undefined) return { edit: addCel(ref, null, makeId, { begins: 'empty' }), frame: at.start };
  const whole = Math.floor(at.frame);
  const end = frames[last + 1] as number;
  if (whole >= end) {
    const held = holdCels(ref, [list[last] as Id], whole - lastFrom);
    const hold = holdOf(layer.items[list[last] as Id]);
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
      if (own.items[id]?.kind === celKind.kind) itemIn(own, id).params.hold = { value: heldFor(hold) };
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
    makeRoom(own, copies.flat().length);
    put(own, copies.flat());
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

/** Draws a stroke in a cel, or whatever holds cards: over what its last brush has drawn, or with a new one. */
export const addStroke = ({ scene, layer, item }: CardRef, stroke: BrushStroke, makeId: MakeId): Edit => ({
  label: stroke.erases ? 'Erase' : 'Draw a stroke',
  change: (draft) => {
    const own = drawingIn(draft, scene, layer);
    const holder = itemIn(own, item);
    if (holder.kind !== brushKind.kind && !holdsCards(kindOf(holder.kind))) {
      throw new RangeError('a stroke is drawn among brush strokes, or in what holds cards');
    }
    let brush =
      holder.kind === brushKind.kind ? item : holder.children?.findLast((id) => own.items[id]?.kind === brushKind.kind);
    if (brush === undefined) {
      const made = newItem(makeId(), brushKind.kind);
      makeRoom(own, 1);
      put(own, [made]);
      (holder.children ??= []).push(made.id);
      brush = made.id;
    }
    const { params } = itemIn(own, brush);
    const property = (params.strokes ??= { value: [] }) as { value?: BrushStroke[] };
    if (!property.value)
      throw new RangeError('Strokes that are keyed are not drawn on: take their keyframes away first');
    if (property.value.length >= LIMITS.brushStrokes) {
      throw new RangeError(`A brush has at most ${LIMITS.brushStrokes} strokes: go on in another card`);
    }
    property.value.push(stroke);
  },
});

/** As it was drawn: x, y, and how hard it was pressed, 0..1. */
export type DrawnBrush = readonly (readonly [x: number, y: number, pressure: number])[];

/**
 * Smoothed as it is drawn: each point follows the pen by a part of its way, the less the smoother it is, 0..1, and arrives where that is
 * lifted.
 */
export const steadied = (drawn: DrawnBrush, smooth: number): DrawnBrush => {
  const by = 1 - 0.9 * smooth;
  const out: (readonly [number, number, number])[] = [];
  for (const [x, y, pressure] of drawn) {
    const [px, py, pp] = out.at(-1) ?? [x, y, pressure];
    out.push([px + (x - px) * by, py + (y - py) * by, pp + (pressure - pp) * by]);
  }
  const last = drawn.at(-1);
  return last ? [...out, last] : out;
};

/** Of a pen that does not tell how hard it is pressed: the faster it goes beside its width, the less. */
export const pressedBySpeed = (drawn: DrawnBrush, size: number): DrawnBrush => {
  let pressure = 0.5;
  return drawn.map(([x, y], i) => {
    const [px, py] = drawn[Math.max(0, i - 1)] as DrawnBrush[number];
    const fast = Math.min(1, Math.hypot(x - px, y - py) / Math.max(1, size));
    pressure += (1 - fast - pressure) * fast * 0.275;
    return [x, y, pressure];
  });
};

/** A stroke's points with as few of them as say the same, for a brush of a size. */
export const keptPoints = (drawn: DrawnBrush, size: number): readonly number[] => {
  const width = Math.min(Math.max(size, BRUSH_LIMITS.size[0]), BRUSH_LIMITS.size[1]);
  // The width that pressure makes is met as nearly as the place.
  const points = drawn.map(([x, y, pressure]) => [x, y, (pressure * width) / 2] as const);
  const kept = simplifiedTo(points, Math.min(0.5, Math.max(0.1, width * 0.02)), LIMITS.strokePoints);
  const rounded = (n: number, by: number): number => Math.round(n * by) / by;
  return kept.flatMap(([x, y, p]) => [rounded(x, 10), rounded(y, 10), rounded(Math.min(1, (p * 2) / width), 1000)]);
};

/** Which strokes lie in an area, most of each of them: by their places in the list. */
export const strokesIn = (all: readonly BrushStroke[], inside: (at: Point) => boolean): readonly number[] =>
  all.flatMap(({ points }, i) => {
    const count = points.length / 3;
    let within = 0;
    for (let n = 0; n < count; n++) if (inside([points[3 * n]!, points[3 * n + 1]!])) within++;
    return within * 2 > count ? [i] : [];
  });

const nearest = (n: number): number => Math.min(FAR, Math.max(-FAR, Math.round(n * 10) / 10));

/** The strokes with some of them moved. */
export const strokesMoved = (all: readonly BrushStroke[], some: readonly number[], [dx, dy]: Point): BrushStroke[] =>
  all.map((stroke, i) =>
    some.includes(i)
      ? {
          ...stroke,
          points: stroke.points.map((x, k) => (k % 3 === 0 ? nearest(x + dx) : k % 3 === 1 ? nearest(x + dy) : x)),
        }
      : stroke,
  );
