/** In which order things that read each other are worked out. */

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

/** The cycle that a thing is in, in order; null for one that only reads a cycle. */
export const cycleFrom = <T>(start: T, reads: ReadonlyMap<T, readonly T[]>, among: ReadonlySet<T>): T[] | null => {
  const cameFrom = new Map<T, T>();
  const queue = [start];
  for (const one of queue) {
    for (const next of reads.get(one) ?? []) {
      if (next === start) {
        const line = [one];
        for (let at = cameFrom.get(one); at; at = cameFrom.get(at)) line.unshift(at);
        return line;
      }
      if (!among.has(next) || cameFrom.has(next)) continue;
      cameFrom.set(next, one);
      queue.push(next);
    }
  }
  return null;
};
