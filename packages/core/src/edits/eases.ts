/** Edits to the eases that a project keeps under names. */
import type { Edit } from '../document/patches';
import type { Id, SavedEase } from '../document/types';

export const keepEase = (saved: SavedEase): Edit => ({
  label: `Keep the ease ${saved.name}`,
  change: (draft) => {
    draft.eases.push(saved as (typeof draft.eases)[number]);
  },
});

export const forgetEase = (id: Id): Edit => ({
  label: 'Forget an ease',
  change: (draft) => {
    draft.eases = draft.eases.filter((e) => e.id !== id);
  },
});
