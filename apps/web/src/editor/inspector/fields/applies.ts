import type { Param } from '@kite/core/document/params';

/** Whether a parameter has a meaning beside the others' values: a colour is nothing to a gradient. */
export const applies = (param: Param, values: { readonly [key: string]: unknown }): boolean => {
  if (!param.when) return true;
  const [key, ...wanted] = param.when;
  return wanted.includes(String(values[key]));
};
