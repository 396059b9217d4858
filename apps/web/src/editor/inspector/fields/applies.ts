import type { Param, Params } from '@kite/core/document/params';

/**
 * Whether a parameter has a meaning beside the others' values: a colour is nothing to a gradient. What depends on one that has none
 * has none either.
 */
export const applies = (param: Param, values: { readonly [key: string]: unknown }, params: Params): boolean => {
  if (!param.when) return true;
  const [key, ...wanted] = param.when;
  const on = params[key];
  return wanted.includes(String(values[key])) && (!on || applies(on, values, params));
};
