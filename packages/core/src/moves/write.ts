/** The keyframes of moves, and whether a layer still has them as they were written. */
import { fittedValue } from '../motion/kinds/table';
import { PLACE } from '../document/params';
import {
  type Ease,
  type Id,
  isKeyed,
  type Keyframe,
  type Layer,
  type Point,
  type Properties,
  type Property,
  type Value,
} from '../document/types';
import { samplerOf } from '../motion/sampler';
import { wipe } from '../recipe/covers/wipe';
import { trim } from '../recipe/steps/trim';
import type { AppliedMove, EmphasisMove, Move, PassageMove, SideMove } from '../document/moves';

/** Of a layer in depth. */
const DEEP_KEYS = ['turnX', 'turnY', 'z'] as const;
export const PLACED_KEYS = ['position', 'scale', 'rotation', 'opacity', ...DEEP_KEYS] as const;
/** Of the trims by which a move draws outlines: they come from their beginning, and go by it. */
export const TRIM_KEYS = ['start', 'end'] as const;
/** Of the wipe by which it slides out from behind its edge. */
export const WIPE_KEYS = ['shown'] as const;
export type MovedKey = (typeof PLACED_KEYS)[number] | (typeof TRIM_KEYS)[number] | (typeof WIPE_KEYS)[number];
const MOVED_KEYS: readonly MovedKey[] = [...PLACED_KEYS, ...TRIM_KEYS, ...WIPE_KEYS];
/** What each of them takes. */
export const MOVED = { ...PLACE, start: trim.params.start, end: trim.params.end, shown: wipe.params.shown };

/** The cards that a move made on its layer, each with what it writes to. */
export const cardsOfMove = ({
  trims = [],
  wipe: own,
}: AppliedMove): readonly { readonly id: Id; readonly keys: readonly MovedKey[] }[] => [
  ...trims.map((id) => ({ id, keys: TRIM_KEYS })),
  ...(own === undefined ? [] : [{ id: own, keys: WIPE_KEYS }]),
];

/** Whether what is written needs a layer to be in depth. */
export const isDeep = (key: string): boolean => (DEEP_KEYS as readonly string[]).includes(key);

/** A layer's place at rest, and what is drawn of its outlines and shown of it. */
export interface Rest {
  readonly position: Point;
  readonly scale: Point;
  readonly rotation: number;
  readonly opacity: number;
  readonly turnX: number;
  readonly turnY: number;
  readonly z: number;
  readonly start: number;
  readonly end: number;
  readonly shown: number;
}

/** Of what stands as it was made. */
export const AT_REST: Rest = {
  position: [0, 0],
  scale: [1, 1],
  rotation: 0,
  opacity: 1,
  turnX: 0,
  turnY: 0,
  z: 0,
  start: 0,
  end: 1,
  shown: 1,
};

/** The keyframes of each property that a move changes. */
export type Written = { readonly [K in MovedKey]?: readonly Keyframe[] };

const LINEAR: Ease = { kind: 'linear' };
const tidy = (n: number) => Math.round(n * 1e4) / 1e4 + 0;

const awayFrom = ([x, y]: Point, angle: number, distance: number): Point => {
  const turn = (angle * Math.PI) / 180;
  return [tidy(x + Math.cos(turn) * distance), tidy(y + Math.sin(turn) * distance)];
};

const times = ([x, y]: Point, by: number): Point => [tidy(x * by), tidy(y * by)];

const distanceOf = (move: SideMove | PassageMove, { away }: AppliedMove) => (move.outside ? away : move.distance);

/** An ease that stays between its ends: what shrinks to its size does not get smaller than that. */
const calm = (ease: Ease): Ease => {
  const within = (y: number) => Math.min(1, Math.max(0, y));
  if (ease.kind === 'bezier') return { ...ease, y1: within(ease.y1), y2: within(ease.y2) };
  if (ease.kind === 'drawn') return { ...ease, points: ease.points.map((p) => ({ ...p, y: within(p.y) })) };
  return ease.kind === 'spring' ? CALM : ease;
};
const CALM: Ease = { kind: 'bezier', x1: 0.2, y1: 0.6, x2: 0.35, y2: 1 };

type Keys = (there: Value, here: Value) => Keyframe[];

/** Outlines are drawn to their end, and leave by it: what goes is cut off at its start. */
const drawing = ({ kind, drawn = 1 }: SideMove, { start, end }: Rest, keys: Keys): Written => {
  if (drawn === 1) return {};
  const there = (end - start) * drawn;
  return kind === 'entrance' ? { end: keys(tidy(start + there), end) } : { start: keys(tidy(end - there), start) };
};

const side = (move: SideMove, applied: AppliedMove, rest: Rest): Written => {
  const { from, to } = applied;
  const distance = distanceOf(move, applied);
  const [far, near] = move.kind === 'entrance' ? [from, to] : [to, from];
  const keys = (there: Value, here: Value, ease = move.ease): Keyframe[] =>
    [
      { frame: far, value: there, ease: far < near ? ease : LINEAR },
      { frame: near, value: here, ease: near < far ? ease : LINEAR },
    ].sort((a, b) => a.frame - b.frame);
  return {
    ...(distance !== 0 && { position: keys(awayFrom(rest.position, move.angle, distance), rest.position) }),
    ...(move.scale !== 1 && {
      scale: keys(times(rest.scale, move.scale), rest.scale, move.scale > 1 ? calm(move.ease) : move.ease),
    }),
    ...(move.turn !== 0 && { rotation: keys(rest.rotation + move.turn, rest.rotation) }),
    ...(move.fade !== 1 && { opacity: keys(tidy(rest.opacity * move.fade), rest.opacity) }),
    ...Object.fromEntries(
      DEEP_KEYS.flatMap((key) => (move[key] ? [[key, keys(tidy(rest[key] + move[key]), rest[key])]] : [])),
    ),
    ...(applied.trims && drawing(move, rest, keys)),
    ...(applied.wipe !== undefined &&
      move.behind && { shown: keys(tidy(rest.shown * (1 - move.behind)), rest.shown, calm(move.ease)) }),
  };
};

/** An ease backwards in time and in way: what comes in quickly goes out as quickly. */
const mirrored = (ease: Ease): Ease =>
  ease.kind === 'bezier'
    ? { kind: 'bezier', x1: 1 - ease.x2, y1: 1 - ease.y2, x2: 1 - ease.x1, y2: 1 - ease.y1 }
    : ease;

const passage = (move: PassageMove, applied: AppliedMove, rest: Rest): Written => {
  const { from, to } = applied;
  const quick = Math.max(1, Math.min(move.frames, Math.floor((to - from - 1) / 2)));
  const [arrive, leave] = [from + quick, to - quick];
  const distance = distanceOf(move, applied);
  const at = (way: number) => awayFrom(rest.position, move.angle, way);
  const key = (frame: number, value: Value, ease: Ease): Keyframe => ({ frame, value, ease });
  const back = mirrored(move.ease);
  return {
    position: [
      key(from, at(distance), move.ease),
      key(arrive, at(move.drift / 2), LINEAR),
      key(leave, at(-move.drift / 2), back),
      key(to, at(-distance), LINEAR),
    ],
    ...(move.fade !== 1 && {
      opacity: [
        key(from, tidy(rest.opacity * move.fade), move.ease),
        key(arrive, rest.opacity, LINEAR),
        key(leave, rest.opacity, back),
        key(to, tidy(rest.opacity * move.fade), LINEAR),
      ],
    }),
  };
};

/** Shares of the strength at shares of one time round, for each form; all begin and end at rest. */
const FORMS: { readonly [F in EmphasisMove['form']]: readonly (readonly [at: number, by: number])[] } = {
  pulse: [[0.5, 1]],
  shake: [
    [0.25, 1],
    [0.75, -1],
  ],
  wobble: [
    [0.2, 1],
    [0.5, -0.7],
    [0.8, 0.35],
  ],
  pop: [
    [0.4, 1],
    [0.7, -0.35],
  ],
};
/** What full strength is: a share of the size, pixels, degrees. */
const FULL = { scale: 0.5, shift: 60, turn: 30 };

const emphasis = (move: EmphasisMove, { from, to }: AppliedMove, rest: Rest): Written => {
  const rounds = Math.max(1, move.times);
  const points: [number, number][] = [[0, 0]];
  for (let n = 0; n < rounds; n++) {
    for (const [at, by] of FORMS[move.form]) points.push([(n + at) / rounds, by]);
    points.push([(n + 1) / rounds, 0]);
  }
  const frames = new Map(points.map(([at, by]) => [Math.round(from + at * (to - from)), by]));
  const keys = (value: (by: number) => Value): Keyframe[] =>
    [...frames].map(([frame, by]) => ({ frame, value: value(by * move.strength), ease: move.ease }));
  if (move.form === 'shake') {
    return { position: keys((by) => [tidy(rest.position[0] + by * FULL.shift), rest.position[1]]) };
  }
  if (move.form === 'wobble') return { rotation: keys((by) => tidy(rest.rotation + by * FULL.turn)) };
  return { scale: keys((by) => times(rest.scale, 1 + by * FULL.scale)) };
};

const unlimited = (applied: AppliedMove, rest: Rest): Written => {
  const { move } = applied;
  switch (move.kind) {
    case 'entrance':
    case 'exit':
      return side(move, applied, rest);
    case 'passage':
      return passage(move, applied, rest);
    case 'emphasis':
      return emphasis(move, applied, rest);
  }
};

/** The keyframes that a move has on a layer that rests so; where it would go past a limit it goes to the limit. */
export const writtenBy = (applied: AppliedMove, rest: Rest): Written => {
  const written: { [K in MovedKey]?: readonly Keyframe[] } = unlimited(applied, rest);
  for (const key of MOVED_KEYS) {
    const keys = written[key];
    if (keys) written[key] = keys.map((k) => ({ ...k, value: fittedValue(MOVED[key], k.value) }));
  }
  return written;
};

/** What a move writes to on a layer, by its keys: its place, and what it has of each of the cards that it made. */
interface Place {
  readonly keys: readonly MovedKey[];
  readonly params: Properties;
}
const placesOf = (layer: Layer, applied: AppliedMove): readonly Place[] => [
  { keys: PLACED_KEYS, params: layer.params },
  ...cardsOfMove(applied).map(({ id, keys }) => ({
    keys,
    params: (layer.kind === 'drawing' ? layer.items[id]?.params : undefined) ?? {},
  })),
];

/** Where a layer with this move rests, read from the keyframes that it has. */
export const restOf = (layer: Layer, applied: AppliedMove): Rest => {
  const { move, from, to } = applied;
  const places = placesOf(layer, applied);
  const params = (key: MovedKey) => places.find(({ keys }) => keys.includes(key))?.params ?? {};
  const at = (key: MovedKey, frame: number) => samplerOf(MOVED[key], params(key)[key]).at(frame);
  const resting = move.kind === 'entrance' ? to : from;
  const frame = move.kind === 'passage' ? (from + to) / 2 : resting;
  return {
    position: (at('position', frame) as Point).map(tidy) as unknown as Point,
    scale: at('scale', frame) as Point,
    rotation: at('rotation', frame) as number,
    opacity: at('opacity', frame) as number,
    turnX: at('turnX', frame) as number,
    turnY: at('turnY', frame) as number,
    z: at('z', frame) as number,
    start: at('start', frame) as number,
    end: at('end', frame) as number,
    shown: at('shown', frame) as number,
  };
};

const close = (a: Value, b: Value): boolean => {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) < 0.01;
  const [p, q] = [a as Point, b as Point];
  return Math.abs(p[0] - q[0]) < 0.01 && Math.abs(p[1] - q[1]) < 0.01;
};

/** Whether a layer has the keyframes of a move as it wrote them: then it can still be adjusted. */
export const isUntouched = (layer: Layer, applied: AppliedMove): boolean => {
  const written = writtenBy(applied, restOf(layer, applied));
  const has = (property: Property | undefined, wanted: Keyframe): boolean => {
    const found = isKeyed(property) ? property.keys.find((k) => k.frame === wanted.frame) : undefined;
    return (
      found !== undefined &&
      close(found.value, wanted.value) &&
      JSON.stringify(found.ease) === JSON.stringify(wanted.ease)
    );
  };
  return placesOf(layer, applied).every(({ keys, params }) =>
    keys.every((key) => (written[key] ?? []).every((wanted) => has(params[key], wanted))),
  );
};

/** The frame at which a layer with this move is farthest away; null for one that stays where it is. */
export const farFrame = ({ move, from, to }: AppliedMove): number | null =>
  move.kind === 'entrance' || move.kind === 'passage' ? from : move.kind === 'exit' ? to : null;

/** The frames of a move on a layer that shows from one frame to before another. */
export const reachOfMove = (move: Move, layer: { from: number; to: number }, playhead: number): [number, number] => {
  switch (move.kind) {
    case 'entrance':
      return [layer.from, layer.from + move.frames];
    case 'exit':
      return [layer.to - 1 - move.frames, layer.to - 1];
    case 'passage':
      return [layer.from, Math.max(layer.from + 3, layer.to - 1)];
    case 'emphasis':
      return [playhead, playhead + move.frames];
  }
};
