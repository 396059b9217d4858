/** Routines: steps that several layers go through, at once or one after another, as plain keyframes. */
import type { Routine, RoutineStep, StepKind } from '../document/moves';
import { remembered } from '../document/remembered';
import {
  type Beyond,
  type Ease,
  type Id,
  isKeyed,
  type Keyframe,
  type Layer,
  type Point,
  type Property,
  type PropertyRef,
  type Value,
} from '../document/types';
import { fittedValue } from '../motion/kinds/table';
import { paramIn, propertyIn, refKey } from '../properties/find';
import { reversedEase } from '../motion/eases/table';
import { samplerOf } from '../motion/sampler';
import { turnsOf } from '../motion/stagger';

/** Where a step writes on a layer; null where the layer has nothing for it. */
export const targetOf = (kind: StepKind, scene: Id, layer: Layer): PropertyRef | null => {
  const ref = { scene, layer: layer.id };
  const card = (wanted: string): Id | undefined =>
    layer.kind === 'drawing' ? Object.values(layer.items).find((i) => i.kind === wanted && i.on)?.id : undefined;
  const on = (item: Id | undefined, key: string) => (item === undefined ? null : { ...ref, item, key });
  switch (kind) {
    case 'move':
      return { ...ref, key: 'position' };
    case 'grow':
      return { ...ref, key: 'scale' };
    case 'turn':
      return { ...ref, key: 'rotation' };
    case 'turnX':
    case 'turnY':
      return { ...ref, key: kind };
    case 'away':
      return { ...ref, key: 'z' };
    case 'fade':
      return { ...ref, key: 'opacity' };
    case 'colour':
      return on(card('fill') ?? card('stroke'), 'color');
    case 'trim':
      return on(card('trim'), 'end');
  }
};

const LINEAR: Ease = { kind: 'linear' };

const tidy = (n: number) => Math.round(n * 1e4) / 1e4 + 0;

/** The value that a property has after a step, from the one it has and the one at rest. */
const after = ({ kind, value }: RoutineStep, now: Value, rest: Value): Value => {
  switch (kind) {
    case 'move': {
      const [[x, y], [dx, dy]] = [now as Point, value as Point];
      return [tidy(x + dx), tidy(y + dy)];
    }
    case 'grow':
      return (rest as Point).map((s) => tidy(s * (value as number))) as unknown as Point;
    case 'turn':
    case 'turnX':
    case 'turnY':
    case 'away':
      return tidy((now as number) + (value as number));
    case 'fade':
      return tidy((rest as number) * (value as number));
    case 'colour':
    case 'trim':
      return value;
  }
};

/** A step as one player goes through it in one round. */
interface Stretch {
  readonly step: RoutineStep;
  readonly from: number;
  readonly to: number;
  readonly back: boolean;
}

/** The steps in the frames that they take at the routine's speed. */
const paced = ({ steps, speed }: Pick<Routine, 'steps' | 'speed'>): readonly RoutineStep[] =>
  speed === 1
    ? steps
    : steps.map((step) => ({
        ...step,
        frames: Math.max(1, Math.round(step.frames / speed)),
        gap: Math.round(step.gap / speed),
      }));

/** How many frames one round takes. */
export const roundLength = (routine: Pick<Routine, 'steps' | 'speed'>): number => {
  const steps = paced(routine);
  let end = 0;
  let last = 0;
  for (const step of steps) {
    last = Math.max(0, end + step.gap) + step.frames;
    end = last;
  }
  return Math.max(1, end, last);
};

/** The rounds that are written; the last of those that go on for ever is the one that is gone through again. */
const roundsOf = ({ rounds, forever, pingpong }: Routine): number =>
  forever ? (pingpong ? 2 : 1) : Math.max(1, rounds);

const stretchesOf = (routine: Routine, start: number): Stretch[] => {
  const { pingpong } = routine;
  const steps = paced(routine);
  const length = roundLength(routine);
  const round: Omit<Stretch, 'back'>[] = [];
  let end = 0;
  for (const step of steps) {
    const from = Math.max(0, end + step.gap);
    end = from + step.frames;
    round.push({ step, from, to: end });
  }
  return Array.from({ length: roundsOf(routine) }, (_, n) => {
    const at = start + n * length;
    const back = pingpong && n % 2 === 1;
    const stretches = round.map(({ step, from, to }) =>
      back
        ? { step, from: at + length - to, to: at + length - from, back }
        : { step, from: at + from, to: at + to, back },
    );
    return back ? stretches.reverse() : stretches;
  }).flat();
};

/** What a step adds to: round after round it goes on from where it is. */
const GOES_ON: readonly string[] = ['position', 'rotation', 'turnX', 'turnY', 'z'];

export interface WrittenCurve {
  readonly ref: PropertyRef;
  readonly keys: readonly Keyframe[];
  /** What comes after them, where they go on for ever. */
  readonly after?: Beyond;
}

/** The keyframes of one player, which begins at a frame and rests as `rest` says of each property. */
export const playedBy = (
  routine: Routine,
  layer: Layer,
  scene: Id,
  start: number,
  rest: (ref: PropertyRef) => Value,
): WrittenCurve[] => {
  const curves = new Map<
    string,
    { ref: PropertyRef; now: Value; keys: Map<number, Keyframe>; past: Value[]; free: number }
  >();
  for (const { step, from, to, back } of stretchesOf(routine, start)) {
    const ref = targetOf(step.kind, scene, layer);
    if (!ref) continue;
    const at = refKey(ref);
    const own = rest(ref);
    const curve = curves.get(at) ?? { ref, now: own, keys: new Map<number, Keyframe>(), past: [], free: from };
    curves.set(at, curve);
    // Of one property two steps are never under way at once: the later one waits.
    const begin = Math.max(from, curve.free);
    const end = Math.max(begin + 1, to);
    let next: Value;
    if (back) next = curve.past.pop() ?? own;
    else {
      curve.past.push(curve.now);
      const param = paramIn(layer, ref);
      const wanted = after(step, curve.now, own);
      // Steps that add up past a limit stay at it.
      next = param ? fittedValue(param, wanted) : wanted;
    }
    curve.keys.set(begin, { frame: begin, value: curve.now, ease: back ? reversedEase(step.ease) : step.ease });
    curve.keys.set(end, { frame: end, value: next, ease: LINEAR });
    curve.now = next;
    curve.free = end;
  }
  const last = start + roundsOf(routine) * roundLength(routine);
  return [...curves.values()].map(({ ref, keys, now }) => {
    if (routine.forever) {
      // Every property goes round with the whole routine, whenever its own steps are.
      if (!keys.has(start)) keys.set(start, { frame: start, value: rest(ref), ease: LINEAR });
      if (!keys.has(last)) keys.set(last, { frame: last, value: now, ease: LINEAR });
    }
    const goesOn = !routine.pingpong && GOES_ON.includes(ref.key);
    return {
      ref,
      keys: [...keys.values()].sort((a, b) => a.frame - b.frame),
      ...(routine.forever && { after: goesOn ? ('offset' as const) : ('cycle' as const) }),
    };
  });
};

/** Each player's turn: 0 for the first. */
const turns = remembered(({ players, order, seed }: Routine): ReadonlyMap<Id, number> => {
  const all = turnsOf(
    players.map(() => [0, 0]),
    order,
    seed,
  );
  return new Map(players.map((id, i) => [id, all[i] as number]));
});

export const startOf = (routine: Routine, layer: Id): number =>
  routine.start + (turns(routine).get(layer) ?? 0) * routine.stagger;

/** A value at rest, read at the frame at which the player begins. */
export const restAt =
  (layer: Layer, frame: number) =>
  (ref: PropertyRef): Value => {
    const param = paramIn(layer, ref);
    return param ? samplerOf(param, propertyIn(layer, ref)).at(frame) : 0;
  };

const same = (a: Value, b: Value): boolean => {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) < 0.01;
  if (Array.isArray(a) && Array.isArray(b)) return a.every((x, i) => Math.abs((x as number) - (b[i] as number)) < 0.01);
  return a === b;
};

/** Whether a player has its keyframes as the routine wrote them. */
export const playsUntouched = (
  routine: Routine,
  layer: Layer,
  scene: Id,
  start = startOf(routine, layer.id),
): boolean => {
  return playedBy(routine, layer, scene, start, restAt(layer, start)).every(({ ref, keys, after: goesOn }) => {
    const property: Property | undefined = propertyIn(layer, ref);
    return (
      isKeyed(property) &&
      (goesOn === undefined || property.after === goesOn) &&
      keys.every((key) => {
        const found = property.keys.find((k) => k.frame === key.frame);
        return (
          found !== undefined && same(found.value, key.value) && JSON.stringify(found.ease) === JSON.stringify(key.ease)
        );
      })
    );
  });
};
