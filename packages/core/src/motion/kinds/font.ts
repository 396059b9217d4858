import { isNumber, isObject, isText } from '../../document/is';
import { clamped } from '../../document/fitting';
import { LIMITS } from '../../document/limits';
import { cutText, sound } from '../../document/text';
import type { FontChoice } from '../../document/types';
import { type Kind, step } from './types';

export const fontLabel = ({ family, weight, italic }: FontChoice): string =>
  `${family} ${weight}${italic ? ' italic' : ''}`;

export const font: Kind<'font'> = {
  kind: 'font',
  wanted: () => 'a font: family, weight 1 to 1000 and italic',
  is: (_param, v) =>
    isObject(v) &&
    Object.keys(v).length === 3 &&
    isText(v.family) &&
    v.family.length >= 1 &&
    v.family.length <= LIMITS.name &&
    isNumber(v.weight) &&
    v.weight >= 1 &&
    v.weight <= 1000 &&
    typeof v.italic === 'boolean',
  fitted: ({ default: otherwise }, v) => {
    const family = cutText(sound(v.family), LIMITS.name) || otherwise.family;
    const weight = clamped(v.weight, 1, 1000, otherwise.weight);
    return family === v.family && weight === v.weight ? v : { ...v, family, weight };
  },
  mix: step,
  says: (_param, v) => fontLabel(v),
};
