import { describe, expect, it } from 'vitest';
import { FrameCache } from './frameCache';

/** 100 bytes each. */
const picture = () => ({
  width: 5,
  height: 5,
  closed: 0,
  close() {
    this.closed++;
  },
});
const stamp = ['scene'];

describe('the frame cache', () => {
  it('gives back what it was given, and says which frames those are', () => {
    const cache = new FrameCache(10_000).for(stamp);
    const pictures = [4, 5, 6, 9].map((frame) => ({ frame, p: picture() }));
    for (const { frame, p } of pictures) cache.put(stamp, frame, p);
    expect(cache.get(5)).toBe(pictures[1]?.p);
    expect(cache.get(7)).toBeNull();
    expect(cache.ranges).toEqual([
      [4, 7],
      [9, 10],
    ]);
  });
  it('forgets all once anything has changed, and takes nothing that was drawn before', () => {
    const cache = new FrameCache(10_000).for(stamp);
    const old = picture();
    cache.put(stamp, 1, old);
    cache.for(['another scene']);
    expect([cache.get(1), old.closed]).toEqual([null, 1]);
    const late = picture();
    cache.put(stamp, 2, late);
    expect([cache.get(2), late.closed]).toEqual([null, 1]);
  });
  it('keeps within its budget: what was used longest ago goes first', () => {
    const cache = new FrameCache(300).for(stamp);
    const pictures = [0, 1, 2, 3].map(picture);
    for (const frame of [0, 1, 2]) cache.put(stamp, frame, pictures[frame] as ReturnType<typeof picture>);
    cache.get(0);
    cache.put(stamp, 3, pictures[3] as ReturnType<typeof picture>);
    expect(cache.ranges).toEqual([
      [0, 1],
      [2, 4],
    ]);
    expect(pictures.map((p) => p.closed)).toEqual([0, 1, 0, 0]);
  });
});
