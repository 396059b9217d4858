import type { EaseKind } from './types';

export const linear: EaseKind<{ kind: 'linear' }> = {
  kind: 'linear',
  label: 'Linear',
  settings: {},
  curve: () => (t) => t,
  reversed: (ease) => ease,
};
