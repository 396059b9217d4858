import { expect, it } from 'vitest';
import { pressed } from './keyboard';
import { LISTED } from './table';

it('a key does one thing', () => {
  const keys = LISTED.flatMap((command) => command.keys ?? []);
  expect(keys.filter((key, i) => keys.indexOf(key) !== i)).toEqual([]);
});
it('every key of the table is one that can be pressed', () => {
  const codes: Readonly<Record<string, string>> = { ',': 'Comma', '.': 'Period' };
  for (const keys of LISTED.flatMap((command) => command.keys ?? [])) {
    const parts = keys.split(/\+(?=.)/);
    const name = parts.at(-1) as string;
    const key = name === 'Space' ? ' ' : parts.includes('Alt') ? '˚' : name;
    const modifiers = {
      ctrlKey: parts.includes('Ctrl'),
      shiftKey: parts.includes('Shift'),
      altKey: parts.includes('Alt'),
    };
    expect(pressed({ key, code: codes[name] ?? `Key${name}`, metaKey: false, ...modifiers })).toBe(keys);
  }
});
it('no two commands are called the same', () => {
  const labels = LISTED.map((command) => command.label);
  expect(labels.filter((label, i) => labels.indexOf(label) !== i)).toEqual([]);
});
