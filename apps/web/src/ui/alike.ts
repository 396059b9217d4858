import { isEqual } from '@kite/core/document/is';

/** What all of some things have; null where they differ. */
export const alike = <V>(values: readonly V[]): V | null => {
  const [first] = values;
  return first !== undefined && values.every((value) => isEqual(value, first)) ? first : null;
};
