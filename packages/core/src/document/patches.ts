/** Changes to a document: pure functions that give the new document, the patches that made it and their inverse. */
import { apply as applyMutative, current, type Draft, isDraft } from 'mutative';
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

/** Applies patches from anywhere; throws a RangeError that names the first one that does not fit. */
export const applyPatches = (doc: Project, patches: readonly Patch[]): Project => {
  for (const [i, patch] of patches.entries()) {
    if (patch.path.length === 0 || patch.path.some((key) => UNSAFE.has(String(key)))) {
      throw new RangeError(`patch ${i} has a path that may not be changed`);
    }
    try {
      doc = applyMutative(doc, [{ ...patch, path: [...patch.path] }]) as Project;
    } catch {
      throw new RangeError(`patch ${i} does not fit the document: ${patch.op} ${patch.path.join('/')}`);
    }
  }
  return doc;
};
