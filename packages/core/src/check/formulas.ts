/** What formulas must be. Whether a formula can be read is for the scene to say: one that cannot loses nothing. */
import { isObject, isText } from '../document/is';
import type { Params } from '../document/params';
import { MOST_CHARACTERS } from '../formula/types';
import { type Rule, rule } from './rules';

const isFormula = (v: unknown): boolean =>
  isObject(v) &&
  Object.keys(v).sort().join() === 'on,text' &&
  typeof v.on === 'boolean' &&
  isText(v.text) &&
  v.text.length <= MOST_CHARACTERS;

/** Formulas of any of these parameters, or of a part of a point among them. */
export const formulasRule = (params: Params): Rule => {
  const fits = (key: string) => {
    const part = /\.[xy]$/.test(key);
    const param = Object.hasOwn(params, part ? key.slice(0, -2) : key) && params[part ? key.slice(0, -2) : key];
    return param && (!part || param.kind === 'point');
  };
  return rule(
    `formulas by the names of its properties, each with a text of at most ${MOST_CHARACTERS} characters and on`,
    (v) => v === undefined || (isObject(v) && Object.entries(v).every(([key, f]) => fits(key) && isFormula(f))),
  );
};
