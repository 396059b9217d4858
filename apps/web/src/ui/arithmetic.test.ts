import { expect, it } from 'vitest';
import { calculate } from './arithmetic';

it.each([
  ['12', 12],
  ['-3.5', -3.5],
  ['1920/3', 640],
  ['2*(40+5)-1', 89],
  ['10 - 2 - 3', 5],
  ['1,5 × 2', 3],
  ['2 * -4', -8],
  ['+7', 7],
  ['.5 ÷ 2', 0.25],
])('%s is %d', (text, value) => expect(calculate(text)).toBe(value));

it.each(['', 'abc', '1 +', '(2', '2)', '1/0', '3 4', '50 %', 'sin(3)', '{x}', '1 < 2'])('%j is none', (text) =>
  expect(calculate(text)).toBeNull(),
);
