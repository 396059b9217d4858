/** Edits that give moves to layers, adjust them, and take them away. */
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import {
  type DrawingLayer,
  type Id,
  isApart,
  isKeyed,
  type Item,
  type Keyframe,
  type Layer,
  type Point,
  type Properties,
  type Property,
  type PropertyRef,
  type Scene,
} from '../document/types';
import { type MakeId, newItem } from '../document/make';
import { PLACE } from '../document/params';
import type { TextUnit } from '../motion/sampler';
import { text } from '../recipe/sources/text';
import { letters } from '../recipe/steps/letters';
import { withoutKeys, withPastedKeys } from '../motion/keys';
import { broughtTogether } from '../motion/parting';
import type { AppliedMove, Move, SavedMove, SideMove } from '../document/moves';
import {
  AT_REST,
  cardsOfMove,
  isDeep,
  isUntouched,
  type MovedKey,
  PLACED_KEYS,
  reachOfMove,
  type Rest,
  restOf,
  writtenBy,
} from '../moves/write';
import { layerIn, type LayerDraft, NotFound, sceneIn } from './find';
import { addItem } from './recipe';
import { addTrims, addWipe, removeCards, wayFrom } from './moveCards';

/** A layer as its moves write to it. The parts of a position come together for it. */
const writable = (draft: LayerDraft): Layer => {
  const layer = plain<Layer>(draft);
  const { position } = layer.params;
  if (!isApart(position)) return layer;
  return { ...layer, params: { ...layer.params, position: broughtTogether(PLACE.position, position) } };
};

/** Changes what a move writes to, each property by its key: of the layer's place, and of the cards that the move made. */
const rewrite = (
  layer: LayerDraft,
  applied: AppliedMove,
  how: (property: Property | undefined, key: MovedKey) => Property | undefined,
): void => {
  const rewritten = (properties: Properties, keys: readonly MovedKey[]): Properties => {
    const changed = keys.flatMap((key) => {
      const property = how(properties[key], key);
      return property === undefined || property === properties[key] ? [] : [[key, property] as const];
    });
    return { ...properties, ...Object.fromEntries(changed) };
  };
  layer.params = rewritten(writable(layer).params, PLACED_KEYS) as typeof layer.params;
  if (layer.kind !== 'drawing') return;
  for (const { id, keys } of cardsOfMove(applied)) {
    const card = layer.items[id];
    if (card) card.params = rewritten(plain<Properties>(card.params), keys) as typeof card.params;
  }
};

const write = (layer: LayerDraft, applied: AppliedMove, rest: Rest): void => {
  const written = writtenBy(applied, rest);
  rewrite(layer, applied, (property, key) => written[key] && withPastedKeys(property, written[key]));
  const { move, wipe = '' } = applied;
  const card = layer.kind === 'drawing' ? layer.items[wipe] : undefined;
  if (card && isSliding(move)) card.params.angle = { value: wayFrom(move.angle) };
  if (Object.keys(written).some(isDeep) && !isKeyed(layer.params.depth)) layer.params.depth = { value: true };
};

/** Takes a move's keyframes away; what has none left rests where it rested. */
const erase = (layer: LayerDraft, applied: AppliedMove): Rest => {
  const rest = restOf(writable(layer), applied);
  const written = writtenBy(applied, rest);
  rewrite(layer, applied, (property, key) => {
    if (!written[key] || !isKeyed(property)) return property;
    const left = withoutKeys(property, new Set(written[key].map((k) => k.frame)));
    return isKeyed(left) ? left : { value: rest[key] };
  });
  return rest;
};

const movesOf = (layer: LayerDraft): AppliedMove[] => plain<AppliedMove[]>(layer.moves);

/** Changes when the moves of a layer are, as `act` does; those that are as they were written are written anew, to the frame. */
export const rewritingMoves = (layer: LayerDraft, act: () => void): void => {
  const rests = new Map<Id, Rest>();
  for (const move of movesOf(layer)) if (isUntouched(writable(layer), move)) rests.set(move.id, erase(layer, move));
  act();
  for (const move of movesOf(layer)) {
    const rest = rests.get(move.id);
    if (rest) write(layer, move, rest);
  }
};
const setMoves = (layer: LayerDraft, moves: readonly AppliedMove[]): void => {
  layer.moves = moves as typeof layer.moves;
};

/** How far each layer goes to be out of its scene in a direction, in pixels of its parent. */
export type AwayOf = (layer: Id, angle: number) => number;

const awayFor = (move: Move, layer: Id, away: AwayOf) =>
  'outside' in move && move.outside ? Math.round(away(layer, move.angle)) : 0;

/** Whether a move draws outlines. */
export const isDrawing = (move: Move): boolean => 'drawn' in move && move.drawn !== undefined;

/** Whether a move brings layers out from behind their edge, or behind it. */
export const isSliding = (move: Move): move is SideMove => 'behind' in move && move.behind !== undefined;

/**
 * Gives a move to layers, where it is due on each: at its start, at its end, or at the playhead. One that draws outlines puts trims
 * before their strokes, one that slides a wipe after all that they draw; RangeError for a layer without.
 */
export const applyMove = (
  sceneId: Id,
  ids: readonly Id[],
  id: Id,
  move: Move,
  playhead: number,
  away: AwayOf,
  makeId: MakeId,
): Edit => ({
  label: move.name,
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const layerId of ids) {
      const layer = layerIn(scene, layerId);
      const [from, to] = reachOfMove(move, layer, playhead);
      const trims = isDrawing(move) && layer.kind === 'drawing' ? addTrims(layer, move.name, makeId) : [];
      if (isDrawing(move) && trims.length === 0) {
        throw new RangeError(`“${layer.name}” has no stroke that “${move.name}” could draw: give it the card Stroke`);
      }
      const bare = { id, move, from, to, away: awayFor(move, layerId, away) };
      if (isSliding(move) && layer.kind !== 'drawing') {
        throw new RangeError(`“${layer.name}” draws nothing that “${move.name}” could hide`);
      }
      const applied: AppliedMove = {
        ...bare,
        ...(trims.length > 0 && { trims }),
        ...(isSliding(move) && layer.kind === 'drawing' && { wipe: addWipe(layer, move.name, move.angle, makeId) }),
      };
      write(layer, applied, restOf(writable(layer), applied));
      setMoves(layer, [...movesOf(layer), applied]);
    }
  },
});

/** Frames from one part of a text to the next. */
const APART: { readonly [U in TextUnit]: number } = { letters: 2, words: 4, lines: 6 };

/** Whether a layer has a text whose parts can move by themselves. */
export const hasText = (layer: Layer | undefined): boolean =>
  layer?.kind === 'drawing' && Object.values(layer.items).some((item) => item.kind === text.kind && item.on);

/** The edge of a part that lies in a direction, in degrees clockwise from the right. */
const edgeTowards = (angle: number): string =>
  ['right', 'bottom', 'left', 'top'].at(Math.round(angle / 90) % 4) as string;

/** What a part hides of itself where a whole layer shows so much. */
const hidden = (shown: readonly Keyframe[]) =>
  ['behind', { keys: shown.map((key) => ({ ...key, value: 1 - (key.value as number) })) }] as const;

/**
 * Gives a move to each letter, word or line of the texts of layers, one after another: as a card of their recipe, which is called
 * by the move. What goes out ends when its layer does, whatever the words are. Layers without text are left alone.
 */
export const applyMoveToParts = (
  sceneId: Id,
  ids: readonly Id[],
  by: TextUnit,
  move: Move,
  playhead: number,
  away: AwayOf,
  makeId: MakeId,
): Edit => ({
  label: move.name,
  change: (draft) => {
    for (const layerId of ids) {
      const layer = layerIn(sceneIn(draft, sceneId), layerId);
      if (layer.kind !== 'drawing' || !hasText(plain<DrawingLayer>(layer))) continue;
      const [from, to] = reachOfMove(move, layer, playhead);
      const applied: AppliedMove = { id: '', move, from, to, away: awayFor(move, layerId, away), wipe: '' };
      const written = Object.entries(writtenBy(applied, AT_REST)).flatMap(([key, keys]) =>
        isDeep(key) ? [] : [key === 'shown' ? hidden(keys) : ([key, { keys }] as const)],
      );
      if (written.length === 0) {
        const why = isDrawing(move) ? 'draws whole layers' : 'turns whole layers in depth';
        throw new RangeError(`“${move.name}” ${why}: split the text, and give it to its ${by}`);
      }
      const goesOut = move.kind === 'exit';
      const card = newItem(makeId(), letters.kind, {
        by,
        stagger: goesOut ? -APART[by] : APART[by],
        order: goesOut ? 'reversed' : 'list',
        ...(isSliding(move) && { edge: edgeTowards(move.angle) }),
      });
      const item: Item = { ...card, name: move.name, params: { ...card.params, ...Object.fromEntries(written) } };
      addItem(sceneId, layerId, item).change(draft);
    }
  },
});

const holders = (draft: ProjectDraft, sceneId: Id, ids: readonly Id[], id: Id): LayerDraft[] => {
  const scene = sceneIn(draft, sceneId);
  const found = ids.map((layer) => layerIn(scene, layer)).filter((l) => l.moves.some((m) => m.id === id));
  if (found.length === 0) throw new NotFound('move', id);
  return found;
};

/** A layer that begins with its entrance begins with it still when that is elsewhere; one that ends with its exit ends with it. */
const follow = (layer: LayerDraft, before: AppliedMove, next: AppliedMove): void => {
  const { kind } = before.move;
  if (kind === 'entrance' && layer.from === before.from) layer.from = Math.min(next.from, layer.to - 1);
  if (kind === 'exit' && layer.to === before.to + 1) layer.to = Math.max(next.to + 1, layer.from + 1);
};

/** Keyframes of properties, by their frames. */
type Chosen = readonly { readonly ref: PropertyRef; readonly frames: readonly number[] }[];

/** A move with its ends elsewhere, at least a frame apart. */
const withEnds = (applied: AppliedMove, from: number, to: number): AppliedMove => {
  const end = Math.max(to, from + 1);
  const { move } = applied;
  return { ...applied, from, to: end, move: move.kind === 'passage' ? move : { ...move, frames: end - from } };
};

/**
 * Slides the ends of moves that are among some keyframes: all that a move wrote at such an end goes along, and it lasts so much
 * longer or shorter; its other end stays. Gives the keyframes that are no move's, or a move's between its ends.
 */
export const slideEnds = (draft: ProjectDraft, chosen: Chosen, by: number): Chosen => {
  let left = chosen;
  const owners = new Map(chosen.map(({ ref }) => [`${ref.scene}/${ref.layer}`, ref]));
  for (const { scene, layer: id } of owners.values()) {
    const layer = layerIn(sceneIn(draft, scene), id);
    for (const applied of movesOf(layer)) {
      const now = writable(layer);
      if (!isUntouched(now, applied)) continue;
      const written = writtenBy(applied, restOf(now, applied));
      const isOwn = ({ item, key }: PropertyRef) =>
        item === undefined
          ? (PLACED_KEYS as readonly string[]).includes(key)
          : cardsOfMove(applied).some(
              ({ id: card, keys }) => card === item && (keys as readonly string[]).includes(key),
            );
      const wrote = (ref: PropertyRef) =>
        ref.scene === scene && ref.layer === id && isOwn(ref) ? written[ref.key as MovedKey] : undefined;
      const frames = left.flatMap((c) => c.frames.filter((f) => wrote(c.ref)?.some((k) => k.frame === f)));
      const { from, to } = applied;
      if (frames.length === 0 || frames.some((f) => f !== from && f !== to)) continue;
      const next = withEnds(applied, frames.includes(from) ? from + by : from, frames.includes(to) ? to + by : to);
      const rest = erase(layer, applied);
      write(layer, next, rest);
      setMoves(
        layer,
        movesOf(layer).map((m) => (m.id === applied.id ? next : m)),
      );
      follow(layer, applied, next);
      left = left.map((c) => (wrote(c.ref) ? { ...c, frames: c.frames.filter((f) => f !== from && f !== to) } : c));
    }
  }
  return left.filter(({ frames }) => frames.length > 0);
};

/** The layers that are seen before a move lets them in, or after it has let them out, with the frame at which it does. */
export const seenBeside = (scene: Scene, ids: readonly Id[], move: Id): ReadonlyMap<Id, number> =>
  new Map(
    ids.flatMap((id) => {
      const layer = scene.layers[id];
      const applied = layer?.moves.find((m) => m.id === move);
      if (!layer || !applied) return [];
      if (applied.move.kind === 'entrance' && layer.from < applied.from) return [[id, applied.from]];
      return applied.move.kind === 'exit' && layer.to > applied.to + 1 ? [[id, applied.to + 1]] : [];
    }),
  );

/** Lets layers begin with an entrance, or end with an exit. */
export const trimToMove = (sceneId: Id, ids: readonly Id[], move: Id): Edit => ({
  label: 'Trim to a move',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const [id, frame] of seenBeside(plain<Scene>(scene), ids, move)) {
      const layer = layerIn(scene, id);
      if (layer.moves.find((m) => m.id === move)?.move.kind === 'exit') layer.to = Math.max(frame, layer.from + 1);
      else layer.from = Math.min(frame, layer.to - 1);
    }
  },
});

export interface MoveChange {
  readonly move?: Move;
  /** Frames by which it begins later on every layer. */
  readonly later?: number;
  /** Where the layer rests, for moves of one layer. */
  readonly position?: Point;
}

/** Adjusts a move on those of the layers that have it as it was written; what was edited by hand stays. */
export const changeMove = (sceneId: Id, ids: readonly Id[], id: Id, to: MoveChange, away: AwayOf): Edit => ({
  label: to.move?.name ?? 'Adjust a move',
  change: (draft) => {
    for (const layer of holders(draft, sceneId, ids, id)) {
      const moves = movesOf(layer);
      const before = moves.find((m) => m.id === id);
      if (!before || !isUntouched(writable(layer), before)) continue;
      const rest = erase(layer, before);
      const move = to.move ?? before.move;
      const later = to.later ?? 0;
      const stretch = move.kind === 'passage' ? 0 : move.frames - before.move.frames;
      // An exit ends where it ended, whatever its length.
      const next: AppliedMove = {
        ...before,
        move,
        from: before.from + later - (move.kind === 'exit' ? stretch : 0),
        to: before.to + later + (move.kind === 'exit' ? 0 : stretch),
        away: awayFor(move, layer.id, away),
      };
      write(layer, next, to.position ? { ...rest, position: to.position } : rest);
      follow(layer, before, next);
      setMoves(
        layer,
        moves.map((m) => (m.id === id ? next : m)),
      );
    }
  },
});

/** Takes a move away, with its keyframes where they are as they were written. */
export const removeMove = (sceneId: Id, ids: readonly Id[], id: Id): Edit => ({
  label: 'Remove a move',
  change: (draft) => {
    for (const layer of holders(draft, sceneId, ids, id)) {
      const moves = movesOf(layer);
      const applied = moves.find((m) => m.id === id);
      if (applied && isUntouched(writable(layer), applied)) {
        erase(layer, applied);
        removeCards(layer, applied);
      }
      setMoves(
        layer,
        moves.filter((m) => m.id !== id),
      );
    }
  },
});

/** The moves that can still be adjusted on some layers, each once, with the layers that have it. */
export const adjustableMoves = (
  scene: Scene,
  ids: readonly Id[],
): { readonly applied: AppliedMove; readonly layers: readonly Id[] }[] => {
  const found = new Map<Id, { applied: AppliedMove; layers: Id[] }>();
  for (const id of ids) {
    const layer = scene.layers[id];
    for (const applied of layer?.moves ?? []) {
      if (!layer || isApart(layer.params.position) || !isUntouched(layer, applied)) continue;
      const known = found.get(applied.id);
      if (known) known.layers.push(id);
      else found.set(applied.id, { applied, layers: [id] });
    }
  }
  return [...found.values()];
};

export const keepMove = (saved: SavedMove): Edit => ({
  label: 'Keep a move',
  change: (draft) => {
    draft.moves = [...draft.moves, saved] as typeof draft.moves;
  },
});

export const forgetMove = (id: Id): Edit => ({
  label: 'Forget a move',
  change: (draft) => {
    draft.moves = draft.moves.filter((m) => m.id !== id);
  },
});
