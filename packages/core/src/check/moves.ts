/** What moves must be. */
import * as yup from 'yup';
import { FAR } from '../document/params';
import { EMPHASES } from '../moves/types';
import { between, flag, idRule, isObject, LIMITS, nameRule, object, oneOf, type Rule, whole } from './rules';
import { easeRule } from './values';

const ease = easeRule as unknown as Rule;
const base = { name: nameRule, frames: whole(1, 100_000), ease };
const away = { angle: between(-36_000, 36_000), distance: between(-FAR, FAR), outside: flag, fade: between(0, 1) };

const moveRule = yup.lazy((value: unknown) => {
  const kind = isObject(value) ? value.kind : undefined;
  if (kind === 'passage') return object({ ...base, ...away, kind: oneOf(['passage']), drift: between(-FAR, FAR) });
  if (kind === 'emphasis') {
    return object({
      ...base,
      kind: oneOf(['emphasis']),
      form: oneOf(EMPHASES),
      strength: between(0, 1),
      times: whole(1, 100),
    });
  }
  return object({
    ...base,
    ...away,
    kind: oneOf(['entrance', 'exit', 'passage', 'emphasis']),
    scale: between(-100, 100),
    turn: between(-36_000, 36_000),
  });
}) as unknown as Rule;

const frame = whole(-LIMITS.frame, LIMITS.frame);
const list = (entry: Rule, most: number): Rule => yup.array(entry).strict().max(most).required() as unknown as Rule;

/** The moves of a layer. */
export const movesRule = list(
  object({ id: idRule, move: moveRule, from: frame, to: frame, away: between(-FAR, FAR) }),
  LIMITS.moves,
);

/** The moves kept with a project. */
export const savedMovesRule = list(object({ id: idRule, move: moveRule }), LIMITS.moves);
