/** Changes to a document: pure functions that give the new document, the patches that made it and their inverse. */
import { apply as applyMutative, create, current, type Draft, isDraft } from 'mutative';
import type { Project } from './types';

/** JSON Patch operations (RFC 6902) with the path as a list of keys. */
export interface Patch {
  readonly op: 'add' | 'replace' | 'remove';
  readonly path: readonly (string | number)[];
  readonly value?: unknown;
}

export interface Change {
  readonly doc: Project;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

export type ProjectDraft = Draft<Project>;
/** A named change to a draft of the document. */
export interface Edit {
  /** What history calls it. */
  readonly label: string;
  readonly change: (draft: ProjectDraft) => void;
}

/** Several edits as one change. */
export const together = (label: string, edits: readonly Edit[]): Edit => ({
  label,
  change: (draft) => {
    for (const edit of edits) edit.change(draft);
  },
});

/**
 * What stands in a draft now, without the draft: for functions that keep or build values of it. It shares with the document
 * what has not changed, and is not to be changed itself.
 */
export const plain = <T>(value: unknown): T => (isDraft(value) ? current(value as object) : value) as T;

const UNSAFE = new Set(['__proto__', 'constructor', 'prototype']);

/**
 * Patches applied one after the other, each of them told of before it is; what they go through is copied once for all. Throws a
 * RangeError that names the first one that does not fit.
 */
const applied = (
  doc: Project,
  patches: readonly Patch[],
  before?: (draft: ProjectDraft, patch: Patch) => void,
): Project =>
  create(doc, (draft) => {
    for (const [i, patch] of patches.entries()) {
      if (patch.path.length === 0 || patch.path.some((key) => UNSAFE.has(String(key)))) {
        throw new RangeError(`patch ${i} has a path that may not be changed`);
      }
      try {
        before?.(draft, patch);
        applyMutative(draft, [{ ...patch, path: [...patch.path] }]);
      } catch {
        throw new RangeError(`patch ${i} does not fit the document: ${patch.op} ${patch.path.join('/')}`);
      }
    }
  });

/** Applies patches from anywhere; throws a RangeError that names the first one that does not fit. */
export const applyPatches = (doc: Project, patches: readonly Patch[]): Project => applied(doc, patches);

/** What takes a patch back that is about to be applied to a document. */
const inverseOf = (doc: ProjectDraft, { op, path }: Patch): Patch => {
  const key = path.at(-1) as string | number;
  const holder = path.slice(0, -1).reduce<unknown>((at, k) => (at as Record<string | number, unknown>)[k], doc);
  // A place in a list is made by an addition, whatever stood there; a key of a map may have had a value.
  if (op === 'add' && (Array.isArray(holder) || !Object.hasOwn(holder as object, key))) return { op: 'remove', path };
  const value = plain((holder as Record<string | number, unknown>)[key]);
  return { op: op === 'remove' ? 'add' : 'replace', path, value };
};

/** Patches from anywhere as a change, with what takes them back; throws a RangeError as `applyPatches` does. */
export const changeOf = (doc: Project, patches: readonly Patch[]): Change => {
  const inverse: Patch[] = [];
  const next = applied(doc, patches, (draft, patch) => void inverse.push(inverseOf(draft, patch)));
  return { doc: next, patches, inverse: inverse.reverse() };
};
