/** A generator of numbers in 0..1 from a seed, the same on every machine: mulberry32 (Ettinger, public domain). */
export const seeded = (seed: number): (() => number) => {
  let state = Math.round(seed * 1000) | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
};

/** A number's bits stirred (the finaliser of MurmurHash3, Appleby, public domain). */
export const hashed = (n: number): number => {
  let h = Math.imul(n ^ (n >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
};
