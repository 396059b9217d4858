/** Edits made: whatever an edit asks for, the document that it gives is one that the schema takes. */
import { apply, create, type Draft, type Patches } from 'mutative';
import type { Change, Edit, Patch } from '../document/patches';
import type { Project } from '../document/types';
import { fitDocument } from './fitting';

type PathPatches = Patches<{ pathAsArray: true; arrayLengthAssignment: false }>;

const recorded = (
  doc: Project,
  change: (draft: Draft<Project>) => void,
): readonly [Project, PathPatches, PathPatches] =>
  create(doc, (draft) => void change(draft), { enablePatches: { pathAsArray: true, arrayLengthAssignment: false } });

type Holder = { [key: string | number]: unknown };

/**
 * The document after an edit, with the patches that made it and their inverse. Values past a limit are brought to the
 * limit. A RangeError says why an edit cannot be made at all: something is missing, or there would be too many.
 */
export const applyEdit = (doc: Project, edit: Edit): Change => {
  let made = recorded(doc, (draft) => edit.change(draft));
  const [now, asked] = made;
  const fits: (readonly [path: readonly (string | number)[], value: unknown])[] = [];
  fitDocument(now, doc, (path, value) => void fits.push([path, value]));
  if (fits.length > 0) {
    // Made once more together with what has to fit, so that the patches hold nothing that does not.
    made = recorded(doc, (draft) => {
      apply(draft, asked);
      for (const [path, value] of fits) {
        const holder = path.slice(0, -1).reduce<Holder>((at, key) => at[key] as Holder, draft as unknown as Holder);
        holder[path.at(-1) as string] = value;
      }
    });
  }
  const [next, patches, inverse] = made;
  return { doc: next, patches: patches as readonly Patch[], inverse: inverse as readonly Patch[] };
};
