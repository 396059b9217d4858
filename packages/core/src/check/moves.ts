/** What moves and routines must be. */
import { isObject, isPoint } from '../document/is';
import * as yup from 'yup';
import { LIMITS, MOVE_LIMITS } from '../document/limits';
import { FAR } from '../document/params';
import { EMPHASES, ROUTINE_ORDERS, STEP_KINDS, type StepKind } from '../document/moves';
import {
  between,
  colorRule,
  flag,
  idRule,
  ids,
  list,
  maybeBetween,
  maybeIdRule,
  maybeIds,
  nameRule,
  object,
  oneOf,
  type Rule,
  rule,
  whole,
} from './rules';
import { easeRule } from './values';

const ease = easeRule as unknown as Rule;
const base = { name: nameRule, frames: whole(...MOVE_LIMITS.frames), ease };
const away = { angle: between(...MOVE_LIMITS.angle), distance: between(-FAR, FAR), outside: flag, fade: between(0, 1) };

const moveRule = yup.lazy((value: unknown) => {
  const kind = isObject(value) ? value.kind : undefined;
  if (kind === 'passage') return object({ ...base, ...away, kind: oneOf(['passage']), drift: between(-FAR, FAR) });
  if (kind === 'emphasis') {
    return object({
      ...base,
      kind: oneOf(['emphasis']),
      form: oneOf(EMPHASES),
      strength: between(0, 1),
      times: whole(...MOVE_LIMITS.times),
    });
  }
  return object({
    ...base,
    ...away,
    kind: oneOf(['entrance', 'exit', 'passage', 'emphasis']),
    scale: between(...MOVE_LIMITS.scale),
    turn: between(...MOVE_LIMITS.angle),
    turnX: maybeBetween(...MOVE_LIMITS.angle),
    turnY: maybeBetween(...MOVE_LIMITS.angle),
    z: maybeBetween(-FAR, FAR),
    drawn: maybeBetween(0, 1),
    behind: maybeBetween(0, 1),
  });
}) as unknown as Rule;

const frame = whole(-LIMITS.frame, LIMITS.frame);
/** The moves of a layer. */
export const movesRule = list(
  object({
    id: idRule,
    move: moveRule,
    from: frame,
    to: frame,
    away: between(-FAR, FAR),
    trims: maybeIds(LIMITS.items),
    wipe: maybeIdRule,
  }),
  LIMITS.moves,
);

/** The moves kept with a project. */
export const savedMovesRule = list(object({ id: idRule, move: moveRule }), LIMITS.moves);

/** What the value of each kind of step must be. */
const STEP_VALUES: { readonly [K in StepKind]: Rule } = {
  move: rule(`two numbers within ${FAR}`, (v) => isPoint(v, FAR)),
  grow: between(...MOVE_LIMITS.grow),
  turn: between(-FAR, FAR),
  turnX: between(-FAR, FAR),
  turnY: between(-FAR, FAR),
  away: between(-FAR, FAR),
  fade: between(0, 1),
  colour: colorRule,
  trim: between(0, 1),
};

const stepRule = yup.lazy((value: unknown) => {
  const kind = isObject(value) ? value.kind : undefined;
  const known = STEP_KINDS.find((k) => k === kind);
  return object({
    kind: oneOf(STEP_KINDS),
    value: known ? STEP_VALUES[known] : rule('a value', () => true),
    frames: whole(...MOVE_LIMITS.frames),
    gap: whole(...MOVE_LIMITS.gap),
    ease,
  });
}) as unknown as Rule;

/** The routines of a scene. */
export const routinesRule = list(
  object({
    id: idRule,
    name: nameRule,
    steps: list(stepRule, LIMITS.moves),
    start: frame,
    stagger: whole(-LIMITS.length, LIMITS.length),
    order: oneOf(ROUTINE_ORDERS),
    seed: whole(...MOVE_LIMITS.seed),
    speed: between(...MOVE_LIMITS.speed),
    rounds: whole(...MOVE_LIMITS.rounds),
    forever: flag,
    pingpong: flag,
    players: ids(LIMITS.layers),
  }),
  LIMITS.moves,
);
