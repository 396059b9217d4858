/** Things that lead to each other: in which order they are worked out, what they reach, and where they go in circles. */

/** Things in an order in which each comes after those that it reads; what is in a cycle, or reads one, is left. */
export const sorted = <T>(things: readonly T[], reads: ReadonlyMap<T, readonly T[]>) => {
  const waiting = new Map(things.map((thing) => [thing, reads.get(thing)?.length ?? 0]));
  const readers = new Map<T, T[]>();
  for (const [one, sources] of reads) {
    for (const source of sources) {
      const known = readers.get(source);
      if (known) known.push(one);
      else readers.set(source, [one]);
    }
  }
  const ready = things.filter((thing) => waiting.get(thing) === 0);
  for (const one of ready) {
    for (const reader of readers.get(one) ?? []) {
      const left = (waiting.get(reader) ?? 0) - 1;
      waiting.set(reader, left);
      if (left === 0) ready.push(reader);
    }
  }
  const done = new Set(ready);
  return { ready, left: things.filter((thing) => !done.has(thing)) };
};

/** The shortest cycle that a thing is in, in order from itself on; null for one that at most leads to a cycle. */
export const cycleFrom = <T>(start: T, leads: (one: T) => Iterable<T>): T[] | null => {
  const cameFrom = new Map<T, T>();
  const queue = [start];
  for (const one of queue) {
    for (const next of leads(one)) {
      if (next === start) {
        const line = [one];
        for (let at = cameFrom.get(one); at !== undefined; at = cameFrom.get(at)) line.unshift(at);
        return line;
      }
      if (cameFrom.has(next)) continue;
      cameFrom.set(next, one);
      queue.push(next);
    }
  }
  return null;
};

/** All that a thing leads to, directly and through others; itself only where it is in a cycle. */
export const reachedFrom = <T>(start: T, leads: (one: T) => Iterable<T>): ReadonlySet<T> => {
  const found = new Set(leads(start));
  // A set gives what is added to it while it is gone through.
  for (const one of found) for (const next of leads(one)) found.add(next);
  return found;
};
