import type { EaseKind } from './types';

/** Keeps the first value until the next keyframe. */
export const hold: EaseKind<{ kind: 'hold' }> = {
  kind: 'hold',
  label: 'Hold',
  curve: () => (t) => (t < 1 ? 0 : 1),
};
