/** Lists that never change. */

/** A list with one of its entries at another place, counted without it. */
export const movedTo = <T>(list: readonly T[], one: T, to: number): T[] => {
  const rest = list.filter((other) => other !== one);
  return [...rest.slice(0, to), one, ...rest.slice(to)];
};
