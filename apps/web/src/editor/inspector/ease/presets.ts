/** The eases that are offered, each with the values it starts from. */
import type { Ease } from '@kite/core/document/types';
import { SOFT } from '@kite/core/motion/eases/table';

export interface Preset {
  readonly name: string;
  readonly ease: Ease;
}

export const PRESETS: readonly Preset[] = [
  { name: 'Linear', ease: { kind: 'linear' } },
  { name: 'Hold', ease: { kind: 'hold' } },
  { name: 'Soft', ease: SOFT },
  // A common overshoot: past the end by a tenth, then back.
  { name: 'Back', ease: { kind: 'bezier', x1: 0.34, y1: 1.56, x2: 0.64, y2: 1 } },
  { name: 'Steps', ease: { kind: 'steps', count: 4, jump: 'end' } },
  { name: 'Spring', ease: { kind: 'spring', bounces: 3, damping: 0.5 } },
  { name: 'Bounce', ease: { kind: 'bounce', bounces: 3, height: 0.4 } },
  {
    name: 'Drawn',
    ease: {
      kind: 'drawn',
      points: [
        { x: 0.45, y: 1.15, corner: false },
        { x: 0.75, y: 0.95, corner: false },
      ],
    },
  },
];

const same = (a: Ease, b: Ease) => JSON.stringify(a) === JSON.stringify(b);

/** Whether a tile stands for an ease: curves by their very values, the other kinds by what they are. */
export const standsFor = (preset: Ease, ease: Ease): boolean =>
  preset.kind === 'bezier' ? same(preset, ease) : preset.kind === ease.kind;

/** CSS's own names for its curves (CSS Easing Functions Level 1, 2.2). */
export const CSS_CURVES: readonly Preset[] = [
  { name: 'ease', ease: { kind: 'bezier', x1: 0.25, y1: 0.1, x2: 0.25, y2: 1 } },
  { name: 'ease-in', ease: { kind: 'bezier', x1: 0.42, y1: 0, x2: 1, y2: 1 } },
  { name: 'ease-out', ease: { kind: 'bezier', x1: 0, y1: 0, x2: 0.58, y2: 1 } },
  { name: 'ease-in-out', ease: { kind: 'bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 } },
];
export { same };
