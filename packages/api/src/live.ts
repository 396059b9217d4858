/** A project while it is open: what others do to it, and where they are, as it happens. */
import { rule } from '@kite/core/check/rules';
import { call, shape } from './call';
import type { Logged } from './history';
import { type Person, personRule } from './projects';
import { idRule, maybe, orNull, textRule } from './rules';

/** Layers that somebody has chosen, at the most, as others are told. */
export const MOST_CHOSEN = 100;

/** Where somebody is in a project. */
export interface Here {
  /** A page: somebody may have several open. */
  readonly tab: string;
  readonly person: Person;
  /** The scene that is open, and what is chosen in it. */
  readonly scene: string | null;
  readonly layers: readonly string[];
}
/** What the server tells a page. */
export interface Told {
  /** The revision when the line was opened. */
  readonly revision?: number;
  /** What was saved, one's own too, in order. */
  readonly edits?: readonly Logged[];
  /** Everybody who is here. */
  readonly people?: readonly Here[];
}

export const hereRule = shape<Here>({
  tab: textRule(64),
  person: personRule,
  scene: orNull(idRule, 'the id of a scene'),
  layers: rule(
    `at most ${MOST_CHOSEN} ids of layers`,
    (v) => Array.isArray(v) && v.length <= MOST_CHOSEN && v.every((id) => idRule.isValidSync(id)),
  ),
});
const list = (what: string) => maybe(rule(what, Array.isArray), what);

export const LIVE = {
  line: call({
    method: 'GET',
    path: '/projects/:id/live',
    does: 'A line to a project that is open (WebSocket, RFC 6455). Messages are JSON. A page says where it is, and is told what is saved and who is here.',
    line: {
      takes: hereRule,
      gives: shape<Told>({
        revision: maybe(rule('a whole number', Number.isSafeInteger), 'the revision when the line was opened'),
        edits: list('what was saved, as the log has it'),
        people: list('everybody who is here, each as they said it'),
      }),
    },
    refuses: ['not_found'],
  }),
};
