import { expect, it } from 'vitest';
import { SHORTCUTS } from './subjects';
import { keysOf, LISTED } from './table';

it('has every command that has keys, once, with all its keys', () => {
  const shown = SHORTCUTS.flatMap(([, shortcuts]) => shortcuts);
  const listed = LISTED.filter(keysOf).map((command) => command.label);
  expect(shown.map(({ label }) => label).toSorted()).toEqual(listed.toSorted());
  for (const { label, keys } of shown) {
    const command = LISTED.find((own) => own.label === label);
    expect([label, keys]).toEqual([label, command?.keys ?? [command?.browser]]);
  }
});
