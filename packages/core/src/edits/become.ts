/** A document made what it was: a state that is gone back to. */
import { type Edit, plain } from '../document/patches';
import type { Project } from '../document/types';
import { applyTo, patchesBetween } from './merge';

/** Only what differs is changed, so that it is undone, saved and told as any edit. A project keeps its id. */
export const become = (label: string, state: Project): Edit => ({
  label,
  change: (draft) => {
    const now = plain<Project>(draft);
    applyTo(draft, patchesBetween(now, { ...state, id: now.id }));
  },
});
