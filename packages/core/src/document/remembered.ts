/** What was made of objects that never change: made once, and gone with them. */

/** `make`, called once for each object: the same answer after that. An answer of `undefined` is asked for again. */
export const remembered = <K extends object, T>(make: (of: K) => T): ((of: K) => T) => {
  const known = new WeakMap<K, T>();
  return (of) => {
    let made = known.get(of);
    if (made === undefined) known.set(of, (made = make(of)));
    return made;
  };
};

/** `make`, called once for each that has the same name. What went wrong, as on a full disk, is tried again. */
export const madeOnce = <K, T>(
  make: (of: K) => Promise<T>,
  nameOf: (of: K) => string = String,
): ((of: K) => Promise<T>) => {
  const known = new Map<string, Promise<T>>();
  return (of) => {
    const name = nameOf(of);
    const made = known.get(name) ?? make(of);
    known.set(name, made);
    made.catch(() => known.delete(name));
    return made;
  };
};

/** Whether two lists have the same things in the same places: objects the very same, NaN as itself. */
export const sameThings = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((thing, i) => Object.is(thing, b[i]));

/** What was made last for each object, as long as it is asked for from the same things: made anew where they are others. */
export const lastMade = <K extends object, T>(): ((of: K, from: readonly unknown[], make: () => T) => T) => {
  const known = new WeakMap<K, { readonly from: readonly unknown[]; readonly made: T }>();
  return (of, from, make) => {
    const before = known.get(of);
    if (before && sameThings(before.from, from)) return before.made;
    const made = make();
    known.set(of, { from, made });
    return made;
  };
};
