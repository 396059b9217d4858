/** Edits made: whatever an edit asks for, the document that it gives is one that the schema takes. */
import { create, current } from 'mutative';
import type { Change, Edit, Patch } from '../document/patches';
import type { Project } from '../document/types';
import { fitDocument } from './fitting';

const asPatches = (patches: unknown): readonly Patch[] => patches as readonly Patch[];

/**
 * The document after an edit, with the patches that made it and their inverse. Values past a limit are brought to the
 * limit. A RangeError says why an edit cannot be made at all: something is missing, or there would be too many.
 */
export const applyEdit = (doc: Project, edit: Edit): Change => {
  const [next, patches, inverse] = create(
    doc,
    (draft) => {
      edit.change(draft);
      fitDocument(current(draft) as Project, doc, (path, value) => {
        const at = path.slice(0, -1).reduce((holder, key) => holder[key] as never, draft as never as Holder);
        at[path.at(-1) as string] = value;
      });
    },
    { enablePatches: { pathAsArray: true, arrayLengthAssignment: false } },
  );
  return { doc: next, patches: asPatches(patches), inverse: asPatches(inverse) };
};

type Holder = { [key: string | number]: unknown };
