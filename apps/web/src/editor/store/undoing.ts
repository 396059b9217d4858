/** What becomes of steps where others edit too. */
import { Invalid } from '@kite/core/check/problem';
import { checkProject } from '@kite/core/check/project';
import { applyPatches, type Change, changeOf, type Patch } from '@kite/core/document/patches';
import { onTopOf } from '@kite/core/edits/merge';
import type { Project } from '@kite/core/document/types';
import type { Entry, Step } from './steps';

/**
 * What takes a step back now: its own patches where nobody else has done anything since, else what is left of them. Null
 * where nothing is. `log` ends with how the document is.
 */
export const changeBack = (doc: Project, log: readonly Entry[], step: Step, person: string): Change | null => {
  const since = log.slice(log.findIndex(({ id }) => id === step.entry) + 1);
  try {
    if (since.every(({ by }) => by?.id === person)) return changeOf(doc, step.inverse);
    const then = since.reduceRight((at, { inverse }) => applyPatches(at, inverse ?? []), doc);
    const change = onTopOf(then, applyPatches(then, step.inverse), doc);
    checkProject(change.doc);
    return change.patches.length > 0 ? change : null;
  } catch (error) {
    if (error instanceof RangeError || error instanceof Invalid) return null;
    throw error;
  }
};

/** What somebody was doing a moment ago, in ms. */
const JUST_NOW = 10_000;

/** Lists that two people change are brought together: neither is over the other. */
const LISTS: ReadonlySet<unknown> = new Set(['order', 'recipe', 'children', 'panel', 'members']);

const overlap = (some: readonly Patch[], others: readonly Patch[]): boolean =>
  some.some(
    ({ path }) =>
      !path.some((key) => LISTS.has(key)) &&
      others.some((other) => path.every((key, i) => i >= other.path.length || key === other.path[i])),
  );

/** What others did over what somebody had just done: the later one stands. `now` is in ms. */
export const overwritten = (
  theirs: readonly Entry[],
  log: readonly Entry[],
  person: string,
  now: number,
): readonly Entry[] => {
  const mine = log.filter(({ by, at }) => by?.id === person && now - Date.parse(at) < JUST_NOW);
  return theirs.filter(({ by, patches }) => by?.id !== person && mine.some((own) => overlap(own.patches, patches)));
};
