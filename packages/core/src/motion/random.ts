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
