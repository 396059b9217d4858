/** What a project is given as it is: the sizes of its scenes, and files. It asks for none of the tables that the rest is checked by. */
import { isColor, isNumber, isObject } from '../document/is';
import { LIMITS } from '../document/limits';
import { PICTURE_TYPES } from '../document/types';
import { between, flag, idRule, nameRule, object, oneOf, rateRule, type Rule, rule, whole } from './rules';

/** The fields of a scene's own, which the door for new projects checks too. */
export const SCENE_SIZE = {
  width: whole(1, LIMITS.side),
  height: whole(1, LIMITS.side),
  rate: rateRule,
  length: whole(1, LIMITS.length),
  background: rule('a colour such as #1B1F4B, or null', (v) => v === null || isColor(v)),
};

export const sizeRule = object(SCENE_SIZE);

const assetFields = {
  id: idRule,
  name: nameRule,
  sha: rule('a SHA-256 in hex', (v) => typeof v === 'string' && /^[0-9a-f]{64}$/.test(v)),
  bytes: whole(1, 2 ** 31),
};

export const assetRule = (value: unknown): Rule => {
  if (isObject(value) && value.kind === 'font') {
    return object({
      ...assetFields,
      kind: oneOf(['font']),
      family: nameRule,
      weight: between(1, 1000),
      italic: flag,
      weights: rule(
        'two weights from 1 to 1000, or null',
        (v) => v === null || (Array.isArray(v) && v.length === 2 && v.every((w) => isNumber(w) && w >= 1 && w <= 1000)),
      ),
    });
  }
  return object({
    ...assetFields,
    kind: oneOf(['picture', 'font']),
    type: oneOf(PICTURE_TYPES),
    width: whole(1, LIMITS.pictureSide),
    height: whole(1, LIMITS.pictureSide),
  });
};
