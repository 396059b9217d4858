/** What the value of a knob may be, from its kind and limits. */
import { remembered } from './remembered';
import { FIRST_COLORS } from './colors';
import {
  asset,
  color,
  degrees,
  FAR,
  FIRST_FONT,
  font,
  MOST_LETTERS,
  number,
  type Param,
  type Params,
  percent,
  point,
  switchParam,
  text,
} from './params';
import type { Id, Knob, KnobKind } from './types';
import { still } from './make';

const paramOf = ({ kind, name, min, max }: Knob): Param => {
  switch (kind) {
    case 'number':
      return number(name, Math.min(max, Math.max(min, 0)), { min, max });
    case 'percent':
      return percent(name, Math.min(max, Math.max(min, 0)), { min, max });
    case 'angle':
      return degrees(name, Math.min(max, Math.max(min, 0)), { min, max });
    case 'point':
      return point(name, [0, 0]);
    case 'color':
      return color(name, FIRST_COLORS[0]);
    case 'switch':
      return switchParam(name, false);
    case 'text':
      return text(name, 'Text', { most: MOST_LETTERS, lines: 'many' });
    case 'font':
      return font(name, FIRST_FONT);
    case 'picture':
      return asset(name, 'picture');
  }
};

/** The parameters of a knob: `value` alone. The same object for the same knob. */
export const paramsOfKnob = remembered((knob: Knob): Params => ({ value: paramOf(knob) }));

const LIMITS: { readonly [K in KnobKind]: readonly [number, number] } = {
  number: [-FAR, FAR],
  percent: [0, 1],
  angle: [-FAR, FAR],
  point: [0, 0],
  color: [0, 0],
  switch: [0, 0],
  text: [0, 0],
  font: [0, 0],
  picture: [0, 0],
};

export const newKnob = (id: Id, kind: KnobKind, name: string): Knob => {
  const [min, max] = LIMITS[kind];
  const knob: Knob = { id, name, kind, min, max, params: {} };
  const { value } = paramsOfKnob(knob);
  return { ...knob, params: { value: still((value as Param).default) } };
};
