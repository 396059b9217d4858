import { choice } from '../document/params';
import type { GroupKind } from './types';

const PARAMS = {
  mode: choice(
    'Mask',
    [
      { value: 'show', label: 'Shows' },
      { value: 'hide', label: 'Hides' },
    ],
    'show',
  ),
} as const;

/** Cards whose outlines show or hide parts of what stands above them in their group. */
export const mask: GroupKind<typeof PARAMS> = {
  role: 'group',
  kind: 'mask',
  label: 'Mask',
  params: PARAMS,
  summary: (v) => (v.mode === 'show' ? 'Shows what is inside' : 'Hides what is inside'),
};
