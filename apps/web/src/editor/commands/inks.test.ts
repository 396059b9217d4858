import { expect, it } from 'vitest';
import { waysOf } from './inks';

const BOX = { left: -100, top: 20, right: 300, bottom: 120 };

it('a gradient goes through what it fills', () => {
  expect(waysOf('linear', BOX)).toEqual([
    [100, 20],
    [100, 120],
  ]);
  expect(waysOf('radial', BOX)).toEqual([
    [100, 70],
    [150, 70],
  ]);
});
