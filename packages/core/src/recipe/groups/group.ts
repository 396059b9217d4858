import { choice, FLAT_PLACE, type Params } from '../../document/params';
import { BLENDS } from '../../document/types';
import type { GroupKind } from '../types';

export const GROUP = { ...FLAT_PLACE, blend: choice('Blend', BLENDS, 'normal') } satisfies Params;

export const group: GroupKind<typeof GROUP> = {
  role: 'group',
  kind: 'group',
  label: 'Group',
  params: GROUP,
  places: true,
  summary: ({ blend }) => `Own place${blend === 'normal' ? '' : `, ${blend.replace('-', ' ')}`}`,
};
