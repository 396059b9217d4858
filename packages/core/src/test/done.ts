import { checkProject } from '../check/project';
import type { Edit } from '../document/patches';
import type { Project } from '../document/types';
import { applyEdit } from '../edits/apply';

/** A project after edits; as it is stored, the schema takes it. */
export const done = (doc: Project, ...edits: readonly Edit[]): Project => {
  const next = edits.reduce((now, edit) => applyEdit(now, edit).doc, doc);
  checkProject(JSON.parse(JSON.stringify(next)));
  return next;
};
