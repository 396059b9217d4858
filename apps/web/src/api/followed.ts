type Change<T> = (list: readonly T[]) => readonly T[];

/**
 * A list that is asked for, and told of by events. An answer that was on its way while something was told may be older than that: it
 * is changed by all that was told since it was asked for.
 */
export const followed = <T>(ask: () => Promise<readonly T[]>) => {
  const underWay = new Set<Change<T>[]>();
  return {
    ask: async (): Promise<readonly T[]> => {
      const told: Change<T>[] = [];
      underWay.add(told);
      try {
        const list = await ask();
        return told.reduce((now, change) => change(now), list);
      } finally {
        underWay.delete(told);
      }
    },
    tell: (change: Change<T>): void => {
      for (const told of underWay) told.push(change);
    },
  };
};
