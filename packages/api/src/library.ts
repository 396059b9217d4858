/** What is there for every project: files, fonts, and sizes kept under a name. */
import { nameRule, rule } from '@kite/core/check/rules';
import { assetRule, sizeRule } from '@kite/core/check/given';
import type { SceneSize } from '@kite/core/document/make';
import type { Asset } from '@kite/core/document/types';
import { bytes, call, listOf, type RuleOf, shape } from './call';
import { idRule } from './rules';

export interface SavedSize {
  readonly id: string;
  readonly name: string;
  readonly size: SceneSize;
}
const savedSize = shape<SavedSize>({ id: idRule, name: nameRule, size: sizeRule });

export const SIZES = {
  list: call({
    method: 'GET',
    path: '/sizes',
    does: 'Scene sizes kept under a name, the oldest first.',
    answer: listOf(savedSize),
  }),
  keep: call({
    method: 'POST',
    path: '/sizes',
    does: 'Keeps a size under a name.',
    body: shape<Omit<SavedSize, 'id'>>({ name: nameRule, size: sizeRule }),
    answer: savedSize,
    makes: true,
  }),
  remove: call({ method: 'DELETE', path: '/sizes/:id', does: 'Takes a size away, if it is there.' }),
};

export const ASSETS = {
  add: call({
    method: 'POST',
    path: '/assets',
    does: 'Takes in a picture (PNG, JPEG, WebP, GIF) or a font (OpenType, TrueType, WOFF, WOFF2). What is known of it goes into a project by an edit.',
    query: { name: 'what it is called' },
    body: bytes('application/octet-stream'),
    answer: rule('an asset, as docs/file-format.md has it', (v) =>
      assetRule(v).isValidSync(v),
    ) as unknown as RuleOf<Asset>,
    makes: true,
    refuses: ['too_large', 'no_room'],
  }),
  file: call({
    method: 'GET',
    path: '/assets/:sha',
    does: 'A file by its SHA-256.',
    answer: bytes('of the file'),
    refuses: ['not_found'],
  }),
  font: call({
    method: 'GET',
    path: '/fonts/:family/:weight/:style/:part',
    does: 'One subset of one of the application’s own fonts; style is `normal` or `italic`, parts count from 0.',
    answer: bytes('font/otf'),
    refuses: ['not_found'],
  }),
};
