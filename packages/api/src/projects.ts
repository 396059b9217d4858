/** Projects: made, listed, opened, saved, put away, packed and unpacked. */
import { isObject, isText } from '@kite/core/document/is';
import { areSound, nameRule, type Rule, rule } from '@kite/core/check/rules';
import { sizeRule } from '@kite/core/check/given';
import type { SceneSize } from '@kite/core/document/make';
import type { Patch } from '@kite/core/document/patches';
import type { Project } from '@kite/core/document/types';
import * as yup from 'yup';
import { bytes, call, listOf, shape } from './call';
import { countRule, idRule, maybe, textRule, timeRule } from './rules';

const MOST_PATCHES = 20_000;
const MOST_SAVES = 1_000;
const MOST_ASKED = 20_000;
/** Of one project. */
export const MOST_TAGS = 12;
/** Characters of a person's name. */
export const MOST_NAME = 80;

/** Who edits: a browser under a name that somebody gave it. */
export interface Person {
  readonly id: string;
  readonly name: string;
}
export interface ProjectCard {
  readonly id: string;
  readonly name: string;
  readonly scenes: number;
  readonly updatedAt: string;
  /** Words that it is found by, in order. */
  readonly tags: readonly string[];
}
export interface Head {
  readonly document: Project;
  /** Counts the saves: the next one is made on it. */
  readonly revision: number;
}
/** One edit. */
export interface Save {
  /** The client's own id of the save: one that comes twice is done once. */
  readonly id: string;
  readonly label: string;
  readonly patches: readonly Patch[];
  /** The save that it takes back, or makes again. */
  readonly undoes?: string;
  readonly redoes?: string;
}
export interface Saved {
  readonly revision: number;
  /** Saves that do not fit the document: the others are kept. */
  readonly refused: readonly { readonly id: string; readonly message: string; readonly field: string }[];
}
export interface Named {
  readonly id: string;
  readonly name: string;
}

const patchFits = (p: unknown): boolean => {
  const { op, path } = (p ?? {}) as { op?: unknown; path?: unknown };
  return (
    ['add', 'replace', 'remove'].includes(op as string) &&
    Array.isArray(path) &&
    path.length <= 16 &&
    path.every((key) => typeof key === 'string' || Number.isInteger(key))
  );
};
export const patchesRule = rule(
  `1 to ${MOST_PATCHES} patches, each with an op of add, replace or remove and a path of keys`,
  (v) => Array.isArray(v) && v.length >= 1 && v.length <= MOST_PATCHES && v.every(patchFits),
);
export const SAVE = {
  id: textRule(64),
  label: textRule(200),
  patches: patchesRule.test('sound', ({ path }) => `${path}: has a text with NUL or half a character in it`, areSound),
  undoes: maybe(textRule(64), 'the id of the save that it takes back'),
  redoes: maybe(textRule(64), 'the id of the save that it makes again'),
};
/** Of one save by itself: one that cannot be read is refused alone. */
export const saveRule = shape<Save>(SAVE);
export const personRule = shape<Person>({ id: textRule(64), name: textRule(MOST_NAME) });
const saves = yup
  .array()
  .strict()
  .required()
  .min(1)
  .max(MOST_SAVES)
  .meta({ wanted: `1 to ${MOST_SAVES} saves, in order`, each: saveRule }) as unknown as Rule;

/** An answer of the server’s, which has checked it: the browser does without what that takes. */
export const documentRule = rule('a project document, as docs/file-format.md has it', isObject);
export const named = shape<Named>({ id: idRule, name: nameRule });

const tagsRule = rule(
  `at most ${MOST_TAGS} words of 1 to 40 characters, each once`,
  (v) =>
    Array.isArray(v) &&
    v.length <= MOST_TAGS &&
    v.every((tag) => textRule(40).isValidSync(tag) && (tag as string).trim() === tag) &&
    new Set(v).size === v.length,
);
const cardRule = shape<ProjectCard>({
  id: idRule,
  name: nameRule,
  scenes: countRule,
  updatedAt: timeRule,
  tags: tagsRule,
});

export const PROJECTS = {
  list: call({
    method: 'GET',
    path: '/projects',
    does: 'The projects, the one that was changed last first.',
    answer: listOf(cardRule),
  }),
  create: call({
    method: 'POST',
    path: '/projects',
    does: 'A new project with one empty scene.',
    body: shape<{ name: string; scene: string; size: SceneSize }>({ name: nameRule, scene: nameRule, size: sizeRule }),
    answer: shape<{ id: string }>({ id: idRule }),
    makes: true,
  }),
  import: call({
    method: 'POST',
    path: '/projects/import',
    does: 'A new project from an archive, under a name that is still free.',
    body: bytes('application/zip'),
    answer: named,
    makes: true,
    refuses: ['too_large'],
  }),
  open: call({
    method: 'GET',
    path: '/projects/:id',
    does: 'The document, and the revision that a save is made on.',
    answer: shape<Head>({ document: documentRule, revision: countRule }),
    refuses: ['not_found'],
  }),
  poster: call({
    method: 'GET',
    path: '/projects/:id/poster',
    does: 'A picture of the poster of the first scene, for a card.',
    query: { at: 'When the project was changed last. With it, browsers keep the picture and do not ask again.' },
    answer: bytes('image/webp'),
    refuses: ['not_found'],
  }),
  save: call({
    method: 'PATCH',
    path: '/projects/:id',
    does: 'Edits, in order. Each is a list of JSON Patch operations (RFC 6902) with paths as lists of keys; one that does not fit is left out and told, the others are kept. What is answered is on disk.',
    body: shape<{ base: number; saves: readonly Save[]; by?: Person }>({
      base: countRule,
      saves,
      by: maybe(personRule, 'who made them, an id and a name'),
    }),
    answer: shape<Saved>({
      revision: countRule,
      refused: listOf(
        shape<Saved['refused'][number]>({ id: textRule(64), message: textRule(500), field: rule('a field', isText) }),
      ),
    }),
    refuses: ['not_found', 'stale', 'no_room'],
  }),
  arrived: call({
    method: 'POST',
    path: '/projects/:id/arrived',
    does: 'Which of these saves are here: an answer may have been lost.',
    body: shape<{ ids: readonly string[] }>({
      ids: rule(
        `at most ${MOST_ASKED} ids`,
        (v) => Array.isArray(v) && v.length <= MOST_ASKED && v.every((id) => isText(id) && id.length <= 64),
      ),
    }),
    answer: shape<{ ids: readonly string[] }>({ ids: listOf(textRule(64)) }),
  }),
  rename: call({
    method: 'POST',
    path: '/projects/:id/rename',
    does: 'Another name, as an edit of its own.',
    body: shape<{ name: string }>({ name: nameRule }),
    answer: shape<{ revision: number }>({ revision: countRule }),
    refuses: ['not_found'],
  }),
  tag: call({
    method: 'POST',
    path: '/projects/:id/tags',
    does: 'Other words that it is found by; none takes them away.',
    body: shape<{ tags: readonly string[] }>({ tags: tagsRule }),
    refuses: ['not_found'],
  }),
  duplicate: call({
    method: 'POST',
    path: '/projects/:id/duplicate',
    does: 'A copy, under a name that is still free.',
    answer: named,
    makes: true,
    refuses: ['not_found'],
  }),
  remove: call({
    method: 'DELETE',
    path: '/projects/:id',
    does: 'Takes a project out of the list. Everything of it is kept for 30 days.',
    refuses: ['not_found'],
  }),
  archives: call({
    method: 'GET',
    path: '/archives',
    does: 'All projects, each as an archive, in one zip.',
    answer: bytes('application/zip'),
    refuses: ['not_found', 'no_room'],
  }),
  removed: call({
    method: 'GET',
    path: '/removed',
    does: 'Projects that were removed in the last 30 days, the newest first; `updatedAt` is when.',
    answer: listOf(cardRule),
  }),
  restore: call({
    method: 'POST',
    path: '/projects/:id/restore',
    does: 'Brings a removed project back.',
    refuses: ['not_found'],
  }),
  checkArchive: call({
    method: 'GET',
    path: '/projects/:id/archive/check',
    does: 'Whether the archive of a project can be made: what is too large is told before anything is downloaded.',
    refuses: ['not_found'],
  }),
  archive: call({
    method: 'GET',
    path: '/projects/:id/archive',
    does: 'The project with its files, as docs/file-format.md has it.',
    answer: bytes('application/zip'),
    refuses: ['not_found'],
  }),
};
