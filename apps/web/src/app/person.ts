/** Who works here, as others in a project are told: of this browser, with a name that can be changed. */
import { type Person, MOST_NAME } from '@kite/api/projects';
import { isText } from '@kite/core/document/is';
import { newId } from '../api/ids';

const KEY = 'kite-person';

const kept = (): Person | null => {
  try {
    const { id, name } = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Partial<Person>;
    return isText(id) && isText(name) && id.length <= 64 && name.length <= MOST_NAME ? { id, name } : null;
  } catch {
    return null;
  }
};

let me: Person | null = null;

const keep = (person: Person): Person => {
  me = person;
  try {
    localStorage.setItem(KEY, JSON.stringify(person));
  } catch {
    // A browser that keeps nothing has somebody else each time.
  }
  return person;
};

/** A guest by a number until a name is given. */
export const myself = (): Person => {
  if (me) return me;
  const id = newId();
  return keep(kept() ?? { id, name: `Guest ${(parseInt(id.slice(0, 4), 16) % 90) + 10}` });
};

export const callMyself = (name: string): Person => keep({ ...myself(), name: name.trim().slice(0, MOST_NAME) });
