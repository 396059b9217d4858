import { FLAT_PLACE } from '../../document/params';
import type { GroupKind } from '../types';

export const group: GroupKind<typeof FLAT_PLACE> = {
  role: 'group',
  kind: 'group',
  label: 'Group',
  params: FLAT_PLACE,
  places: true,
  summary: () => 'Own place',
};
