import { expect, it } from 'vitest';
import { LISTED } from './table';

it('a key does one thing', () => {
  const keys = LISTED.flatMap((command) => command.keys ?? []);
  expect(keys.filter((key, i) => keys.indexOf(key) !== i)).toEqual([]);
});
it('no two commands are called the same', () => {
  const labels = LISTED.map((command) => command.label);
  expect(labels.filter((label, i) => labels.indexOf(label) !== i)).toEqual([]);
});
