import { choice, FLAT_PLACE, type Params } from '../../document/params';
import { BLENDS } from '../../document/types';
import type { GroupKind } from '../types';

export const GROUP = {
  ...FLAT_PLACE,
  // What is in it blends with what is behind it, unless it does so with what is in it alone.
  blend: choice('Blend', [...BLENDS, { value: 'within', label: 'Only within' }], 'normal'),
} satisfies Params;

export const group: GroupKind<typeof GROUP> = {
  role: 'group',
  kind: 'group',
  label: 'Group',
  params: GROUP,
  places: true,
  summary: ({ blend }) => `Own place${blend === 'normal' ? '' : `, ${blend.replace('-', ' ')}`}`,
};
