/** What helps to place things exactly: shown over every scene, and remembered in this browser. */
import { create } from 'zustand';

export interface Aids {
  readonly snap: boolean;
  readonly rulers: boolean;
  readonly guides: boolean;
  readonly thirds: boolean;
  readonly safe: boolean;
  readonly grid: boolean;
  /** Pixels between the grid's lines. */
  readonly gridSize: number;
}

const FIRST: Aids = { snap: true, rulers: false, guides: true, thirds: false, safe: false, grid: false, gridSize: 60 };
const PLACE = 'kite-aids';

const kept = (): Aids => {
  try {
    return { ...FIRST, ...(JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Partial<Aids>) };
  } catch {
    return FIRST;
  }
};

export const useAids = create<Aids>(kept);

export const setAids = (part: Partial<Aids>): void => {
  useAids.setState(part);
  localStorage.setItem(PLACE, JSON.stringify(useAids.getState()));
};
