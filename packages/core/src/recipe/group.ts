import { PLACE } from '../document/params';
import type { GroupKind } from './types';

export const group: GroupKind<typeof PLACE> = {
  role: 'group',
  kind: 'group',
  label: 'Group',
  params: PLACE,
  summary: () => 'Own place',
};
