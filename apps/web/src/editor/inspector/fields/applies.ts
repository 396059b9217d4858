import type { Param, Params } from '@kite/core/document/params';

/**
 * Whether a parameter has a meaning beside the others' values: a colour is nothing to a gradient. What depends on one that has none
 * has none either.
 */
export const applies = (param: Param, values: { readonly [key: string]: unknown }, params: Params): boolean => {
  if (!param.when) return true;
  const [key, ...wanted] = param.when;
  const on = params[key];
  const value = String(values[key]);
  const met = wanted.length === 0 ? value !== '' : wanted.includes(value);
  return met && (!on || applies(on, values, params));
};
