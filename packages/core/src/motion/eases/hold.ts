import type { EaseKind } from './types';

/** Keeps the first value until the next keyframe. */
export const hold: EaseKind<{ kind: 'hold' }> = {
  kind: 'hold',
  label: 'Hold',
  settings: {},
  curve: () => (t) => (t < 1 ? 0 : 1),
  // It stays one: what it waits with is its first value.
  reversed: (ease) => ease,
};
