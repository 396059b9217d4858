/** What can be taken back and made again: worked out from the log, so that it is the same after a reload. */
import type { Logged } from '@kite/api/history';
import type { Person } from '@kite/api/projects';
import type { Patch } from '@kite/core/document/patches';
import type { Waiting } from './queue';

/** A step of the log as it stands here; without a revision while the server has not acknowledged it. */
export type Entry = Omit<Logged, 'revision'> & { readonly revision?: number };

export interface Step {
  /** The edit that it was at first, and the entry that last made it or took it back. */
  readonly id: string;
  readonly entry: string;
  readonly label: string;
  /** What takes that entry back. */
  readonly inverse: readonly Patch[];
}
export interface Steps {
  readonly past: readonly Step[];
  /** What was taken back, the last one last. */
  readonly future: readonly Step[];
}
export const NO_STEPS: Steps = { past: [], future: [] };

const MOST_STEPS = 500;

const without = (steps: readonly Step[], id: string): readonly Step[] => steps.filter((step) => step.id !== id);

/** After one's own edit: a new one ends what could be made again, one that takes back or makes again moves its step. */
export const stepped = ({ past, future }: Steps, entry: Entry): Steps => {
  const { id, undoes, redoes } = entry;
  // What was logged before it was kept how to take it back can be neither taken back nor passed over.
  if (!entry.inverse) return NO_STEPS;
  const { inverse } = entry;
  if (undoes !== undefined) {
    const step = past.find((own) => own.id === undoes);
    const back = step && { ...step, entry: id, inverse };
    return { past: without(past, undoes), future: back ? [...future, back] : future };
  }
  const again = future.find((own) => own.id === redoes);
  const step: Step = { id: redoes ?? id, entry: id, label: again?.label ?? entry.label, inverse };
  return {
    past: [...without(past, step.id), step].slice(-MOST_STEPS),
    future: redoes === undefined ? [] : without(future, redoes),
  };
};

/** All that somebody can take back, from the log. */
export const stepsOf = (log: readonly Entry[], person: string): Steps =>
  log.filter(({ by }) => by?.id === person).reduce(stepped, NO_STEPS);

/** The edits that stand, in order, without what was taken back and the taking back itself. */
export const standing = (log: readonly Entry[]): { readonly entry: Entry; readonly undone: boolean }[] => {
  const undone = new Set<string>();
  for (const { undoes, redoes } of log) {
    if (undoes !== undefined) undone.add(undoes);
    if (redoes !== undefined) undone.delete(redoes);
  }
  return log
    .filter(({ undoes, redoes }) => undoes === undefined && redoes === undefined)
    .map((entry) => ({ entry, undone: undone.has(entry.id) }));
};

/** An edit of one's own that the server does not have yet. */
export const entryOf = ({ inverse, ...edit }: Waiting, by: Person): Entry => ({
  ...edit,
  inverse,
  by,
  at: new Date().toISOString(),
});

/** The log once the server has these edits, at these revisions. */
export const acknowledged = (log: readonly Entry[], revisions: ReadonlyMap<string, number>): readonly Entry[] =>
  log.map((entry) => {
    const revision = revisions.get(entry.id);
    return revision === undefined ? entry : { ...entry, revision };
  });

/** The log once others' edits have come under what waits here; where it is not known what they did, of what waits alone: it is read anew before that. */
export const rebasedLog = (
  log: readonly Entry[],
  theirs: readonly Logged[] | null,
  waiting: readonly Waiting[],
  by: Person,
): readonly Entry[] => {
  const known = theirs ? log.filter(({ revision }) => revision !== undefined) : [];
  const at = new Map(log.map((entry) => [entry.id, entry.at]));
  const again = waiting.map((edit) => {
    const entry = entryOf(edit, by);
    return { ...entry, at: at.get(edit.id) ?? entry.at };
  });
  return [...known, ...(theirs ?? []), ...again];
};

/** Whether a log has more before. */
export const startsLate = (log: readonly Logged[]): boolean => (log[0]?.revision ?? 1) > 1;
