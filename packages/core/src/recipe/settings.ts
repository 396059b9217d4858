/** Settings: cards that stand in the card of a nest, each with a value of its own for one knob of the scene inside. */
import { paramsOfKnob } from '../document/knobs';
import { FAR } from '../document/params';
import { KNOB_KINDS, type KnobKind } from '../document/types';
import type { SettingKind } from './types';

/** The kind of card that sets a knob of a kind. */
export const settingOf = (knob: KnobKind): string => `own-${knob}`;

/** Their values are as wide as any knob's may be: the limits of the knob come in where it is set. */
export const SETTINGS: readonly SettingKind[] = KNOB_KINDS.map((kind) => ({
  role: 'setting',
  kind: settingOf(kind),
  label: 'Own value',
  params: paramsOfKnob({ id: kind, name: 'Value', kind, min: -FAR, max: FAR, params: {} }),
  summary: () => 'A value of its own',
}));
