import { expect, it } from 'vitest';
import { naming, uniqueName } from './make';

it('gives each name once, with the lowest number that is free', () => {
  const free = naming(['Window', 'Window 3', 'Lamp 7']);
  expect(['Lamp', 'Window', 'Window', 'Window', 'Lamp', 'Lamp 7', 'Rail'].map(free)).toEqual([
    'Lamp',
    'Window 2',
    'Window 4',
    'Window 5',
    'Lamp 2',
    'Lamp 3',
    'Rail',
  ]);
});

it('takes a name whose number was given already as any other', () => {
  const free = naming(['Window', 'Window 2']);
  expect([free('Window'), free('Window 4'), free('Window'), free('Window 4')]).toEqual([
    'Window 3',
    'Window 4',
    'Window 5',
    'Window 6',
  ]);
  expect(uniqueName('Window', ['Window'])).toBe('Window 2');
});
