/** What a project can start from. */
import { nameRule } from '@kite/core/check/rules';
import type { Project } from '@kite/core/document/types';
import { bytes, call, listOf, shape } from './call';
import { documentRule, named } from './projects';
import { idRule, textRule } from './rules';

export interface StarterCard {
  readonly id: string;
  readonly name: string;
  /** One line: what it is. */
  readonly about: string;
}

export const STARTERS = {
  list: call({
    method: 'GET',
    path: '/starters',
    does: 'What a project can start from.',
    answer: listOf(shape<StarterCard>({ id: idRule, name: nameRule, about: textRule(200) })),
  }),
  open: call({
    method: 'GET',
    path: '/starters/:id',
    does: 'Its document, to be looked at.',
    answer: shape<{ document: Project }>({ document: documentRule }),
    refuses: ['not_found'],
  }),
  poster: call({
    method: 'GET',
    path: '/starters/:id/poster',
    does: 'A picture of the poster of its first scene, for a card.',
    answer: bytes('image/webp'),
    refuses: ['not_found'],
  }),
  begin: call({
    method: 'POST',
    path: '/starters/:id',
    does: 'A new project that is a copy of it, under a name that is still free.',
    answer: named,
    makes: true,
    refuses: ['not_found'],
  }),
  demo: call({
    method: 'POST',
    path: '/demo',
    does: 'The demo, as it was at first, as a new project under a name that is still free.',
    answer: named,
    makes: true,
  }),
};
