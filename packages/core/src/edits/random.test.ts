/** Edits from chance on projects from chance: none gives a project that the schema refuses, and each can be taken back. */
import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { applyPatches } from '../document/patches';
import type { Project } from '../document/types';
import { Chance } from '../test/random';
import { randomEdit } from '../test/randomEdit';
import { randomProject } from '../test/randomProject';
import { applyEdit } from './apply';

/** Sequences of edits; each begins with a project of its own. */
const SEQUENCES = 10_000;
const EDITS_EACH = 2;
const RUNS = 20;
/** A run takes seconds; on a machine that is busy otherwise, many of them. */
const LONGEST_MS = 300_000;

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

describe('edits from chance', () => {
  it.each(Array.from({ length: RUNS }, (_, i) => i))(
    'run %i: the schema takes all, undo and redo are exact',
    (run) => {
      let made = 0;
      const each = SEQUENCES / RUNS;
      for (let i = 0; i < each; i++) made += walk(run * each + i);
      expect(made).toBeGreaterThan(each);
    },
    LONGEST_MS,
  );
});
