import { READY_MOVES } from '@kite/core/moves/ready';
import { KINDS } from '@kite/core/recipe/table';
import { expect, it } from 'vitest';
import { LISTED } from '../commands/table';
import { ENTRIES, found } from './entries';
import { CARDS_ALSO, MOVES_ALSO } from './names';

const names = (text: string): readonly string[] => found(text).map(({ label }) => label);

it('has every command, every tool and every card, each once', () => {
  const labels = ENTRIES.map(({ label }) => label);
  for (const { label } of LISTED) if (label !== 'Search for anything') expect(labels).toContain(label);
  const ids = ENTRIES.map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  const kinds = [...KINDS.values()].filter(({ role }) => role !== 'setting').map(({ kind }) => kind);
  expect(Object.keys(CARDS_ALSO).toSorted()).toEqual(kinds.toSorted());
  expect(Object.keys(MOVES_ALSO)).toEqual(READY_MOVES.map(({ name }) => name));
});

it.each(ENTRIES.map((entry) => [entry.label, entry] as const))(
  '%s is found by its name and by another',
  (_label, entry) => {
    // What all pages of the help are called says which is meant only with another word.
    const other = entry.also
      .split(' ')
      .slice(0, entry.group === 'Help' ? 2 : 1)
      .join(' ');
    expect(names(entry.label)).toContain(entry.label);
    // Near the top even by a word that it shares with others.
    expect(names(other).slice(0, 14)).toContain(entry.label);
  },
);

it('finds what people mean by it', () => {
  expect(names('drop shadow')[0]).toBe('Shadow');
  expect(names('neon')[0]).toBe('Glow');
  expect(names('boolean')[0]).toBe('Combine');
  expect(names('mp4')[0]).toBe('Render …');
  expect(names('swatches')[0]).toBe('Colours');
  expect(names('draw on')[0]).toBe('Draw on');
  expect(names('distribute')).toEqual(['Equal gaps across', 'Equal gaps down']);
  expect(names('flip horizontal')).toEqual(['Flip left to right']);
  expect(names('correction')[0]).toBe('Add effects on all that is there');
});

it('finds a card by its values, and what is nearly written so', () => {
  expect(names('line height')[0]).toBe('Text');
  expect(names('numbers as a pie')[0]).toBe('Chart');
  expect(names('rectangel')[0]).toBe('Rectangle');
  expect(names('shdow')[0]).toBe('Shadow');
});

it('goes by any of the words where nothing has all of them, and finds nothing by letters that happen to be there', () => {
  expect(names('gradient text').slice(0, 2)).toEqual(['Text', 'Text']);
  expect(names('prlx')).toEqual([]);
});
