/** The middle one of some figures, the upper of two. */
export const median = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[values.length >> 1] ?? NaN;
