import type { EaseKind } from './types';

export const linear: EaseKind<{ kind: 'linear' }> = { kind: 'linear', label: 'Linear', curve: () => (t) => t };
