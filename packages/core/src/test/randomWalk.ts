/** Edits from chance on projects from chance: none gives a project that the schema refuses, and each can be taken back. */
import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { applyPatches } from '../document/patches';
import type { Project } from '../document/types';
import { applyEdit } from '../edits/apply';
import { Chance } from './random';
import { randomEdit } from './randomEdit';
import { randomProject } from './randomProject';

const EDITS_EACH = 2;
/** Sequences of edits in a run; each begins with a project of its own. */
const EACH = 500;

/** As a save sends it. */
const sent = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** Whether two documents are stored alike. Texts are compared first: they mostly tell, and at once. */
const same = (got: Project, wanted: Project, where: string): void => {
  if (JSON.stringify(got) !== JSON.stringify(wanted)) expect(sent(got), where).toEqual(sent(wanted));
};

const walk = (seed: number): number => {
  const chance = new Chance(seed);
  let doc: Project = checkProject(randomProject(chance));
  let made = 0;
  for (let n = 0; n < EDITS_EACH; n++) {
    const edit = randomEdit(chance, doc, `n${n}x`);
    let change: ReturnType<typeof applyEdit>;
    try {
      change = applyEdit(doc, edit);
    } catch (error) {
      // What cannot be done is refused in words.
      if (!(error instanceof RangeError)) throw error;
      continue;
    }
    made++;
    const where = `sequence ${seed}, edit ${n}: ${edit.label}`;
    try {
      checkProject(change.doc);
    } catch (error) {
      throw new Error(`${where}: ${(error as Error).message}`, { cause: error });
    }
    same(applyPatches(doc, sent(change.patches)), change.doc, where);
    same(applyPatches(change.doc, change.inverse), doc, where);
    doc = change.doc;
  }
  return made;
};

/** So many runs, from one on: they take long, and files of tests run beside each other. */
export const runs = (first: number, count: number): void => {
  describe('edits from chance', () => {
    it.each(Array.from({ length: count }, (_, i) => first + i))(
      'run %i: the schema takes all, undo and redo are exact',
      (run) => {
        let made = 0;
        for (let i = 0; i < EACH; i++) made += walk(run * EACH + i);
        expect(made).toBeGreaterThan(EACH);
      },
    );
  });
};
