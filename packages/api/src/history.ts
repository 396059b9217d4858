/** What projects were: the log of their edits, states under names, and what was deleted. */
import { nameRule, rule } from '@kite/core/check/rules';
import type { Patch } from '@kite/core/document/patches';
import type { Assets, Project, Scene } from '@kite/core/document/types';
import { call, listOf, shape } from './call';
import { documentRule, MOST_NAME, named, patchesRule, type Person, personRule, SAVE, type Save } from './projects';
import { countRule, idRule, orNull, textRule, timeRule } from './rules';

/** A save as the log has it. */
export interface Logged extends Save {
  readonly revision: number;
  readonly at: string;
  /** Null for what the server did by itself, and for saves of before they said who. */
  readonly by: Person | null;
  /** What takes it back; null for saves of before that was kept. */
  readonly inverse: readonly Patch[] | null;
}
/** A state of a project that is kept under a name. */
export interface Checkpoint {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly at: string;
  /** Who kept it. */
  readonly by: string | null;
}
/** Scenes with what they need of their project. */
export interface Taken {
  readonly scenes: readonly Scene[];
  readonly assets: Assets;
}
export interface RemovedScene {
  readonly id: string;
  readonly name: string;
  readonly at: string;
}
const loggedRule = shape<Logged>({
  ...SAVE,
  revision: countRule,
  at: timeRule,
  by: orNull(personRule, 'who made it, an id and a name'),
  inverse: orNull(patchesRule, 'the patches that take it back'),
});
const checkpointRule = shape<Checkpoint>({
  id: idRule,
  name: nameRule,
  revision: countRule,
  at: timeRule,
  by: orNull(textRule(MOST_NAME), 'who kept it'),
});

export const HISTORY = {
  edits: call({
    method: 'GET',
    path: '/projects/:id/edits',
    does: 'Saves of the log, in order: the last 200 before a revision, or the next 500 after one; fewer where they are large. Edits are kept for 30 days.',
    query: { before: 'a revision; the newest where neither is asked for', after: 'a revision' },
    answer: listOf(loggedRule),
    refuses: ['not_found'],
  }),
  state: call({
    method: 'GET',
    path: '/projects/:id/states/:state',
    does: 'The document as it was: at a revision, or at a checkpoint.',
    answer: shape<{ document: Project }>({ document: documentRule }),
    refuses: ['not_found'],
  }),
  copyState: call({
    method: 'POST',
    path: '/projects/:id/states/:state/copy',
    does: 'The document as it was as a project of its own, under a name that is still free.',
    answer: named,
    makes: true,
    refuses: ['not_found'],
  }),
  checkpoints: call({
    method: 'GET',
    path: '/projects/:id/checkpoints',
    does: 'The states that are kept under names, the newest first.',
    answer: listOf(checkpointRule),
    refuses: ['not_found'],
  }),
  checkpoint: call({
    method: 'POST',
    path: '/projects/:id/checkpoints',
    does: 'Keeps a state under a name: the one at a revision, or as it is now.',
    body: shape<{ name: string; revision: number | null; by: string | null }>({
      name: nameRule,
      revision: orNull(countRule, 'a revision'),
      by: orNull(textRule(MOST_NAME), 'who keeps it'),
    }),
    answer: checkpointRule,
    makes: true,
    refuses: ['not_found'],
  }),
  renameCheckpoint: call({
    method: 'POST',
    path: '/projects/:id/checkpoints/:checkpoint/rename',
    does: 'Another name for a checkpoint.',
    body: shape<{ name: string }>({ name: nameRule }),
    refuses: ['not_found'],
  }),
  removeCheckpoint: call({
    method: 'DELETE',
    path: '/projects/:id/checkpoints/:checkpoint',
    does: 'Lets go of a checkpoint; the project stays as it is. It is kept for 30 days.',
    refuses: ['not_found'],
  }),
  restoreCheckpoint: call({
    method: 'POST',
    path: '/projects/:id/checkpoints/:checkpoint/restore',
    does: 'Brings a checkpoint back that was let go.',
    refuses: ['not_found'],
  }),
  removedScenes: call({
    method: 'GET',
    path: '/projects/:id/removed',
    does: 'Scenes that were deleted in the last 30 days and are not in the project, the newest first.',
    answer: listOf(shape<RemovedScene>({ id: idRule, name: nameRule, at: timeRule })),
    refuses: ['not_found'],
  }),
  removedScene: call({
    method: 'GET',
    path: '/projects/:id/removed/:scene',
    does: 'A deleted scene with those that it nests, as far as they are gone too, and the files that they draw on.',
    answer: shape<Taken>({
      scenes: rule('scenes', (v) => Array.isArray(v)),
      assets: rule('files by id', (v) => typeof v === 'object' && v !== null),
    }),
    refuses: ['not_found'],
  }),
};
