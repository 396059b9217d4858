/** Smooth noise by a seed: simplex noise (Perlin, 2001) in three dimensions, from -1 to 1. */
import { createNoise3D } from 'simplex-noise';
import { seeded } from '../document/random';

const MOST_SEEDS = 64;
const noises = new Map<number, ReturnType<typeof createNoise3D>>();

/** The same function for the same seed, as long as not too many others are asked for between. */
export const noiseOf = (seed: number): ReturnType<typeof createNoise3D> => {
  const known = noises.get(seed);
  if (known) return known;
  if (noises.size >= MOST_SEEDS) noises.clear();
  const made = createNoise3D(seeded(seed));
  noises.set(seed, made);
  return made;
};
