/** A document made what it was: a state that is gone back to. */
import { apply, type Draft } from 'mutative';
import { type Edit, plain } from '../document/patches';
import type { Project } from '../document/types';
import { patchesBetween } from './merge';

/** Only what differs is changed, so that it is undone, saved and told as any edit. A project keeps its id. */
export const become = (label: string, state: Project): Edit => ({
  label,
  change: (draft) => {
    const now = plain<Project>(draft);
    const patches = patchesBetween(now, { ...state, id: now.id });
    apply(draft, patches as Parameters<typeof apply<Draft<Project>>>[1]);
  },
});
