import { KINDS } from '@kite/core/recipe/table';
import { describe, expect, it } from 'vitest';
import { keysOf, LISTED, COMMANDS } from '../../editor/commands/table';
import { ABOUT } from './cards';
import { GUIDE, MADE } from './guide';

const FOLDER = '../../../../../docs/guide/';
const TEXTS = import.meta.glob<string>('../../../../../docs/guide/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const PICTURES = import.meta.glob('../../../../../docs/guide/pictures/*.webm', { query: '?url' });
const pages = Object.keys(TEXTS)
  .map((path) => path.slice(FOLDER.length))
  .filter((file) => file !== 'README.md');
const textOf = (file: string): string => TEXTS[FOLDER + file] as string;
const isThere = (path: string): boolean =>
  Object.hasOwn(TEXTS, FOLDER + path) || Object.hasOwn(PICTURES, FOLDER + path);

describe('the guide', () => {
  it('lists every page once, by its title', () => {
    expect(GUIDE.map(({ slug }) => `${slug}.md`).toSorted()).toEqual(pages.toSorted());
    for (const { slug, title } of GUIDE) expect(textOf(`${slug}.md`).split('\n')[0]).toBe(`# ${title}`);
  });

  it.each(pages)('%s leads only to pages, pictures and commands that there are', (file) => {
    const links = [...textOf(file).matchAll(/\]\(([^)]+)\)/g)].map(([, to]) => to as string);
    for (const to of links) {
      const known = to.startsWith('command:')
        ? Object.hasOwn(COMMANDS, to.slice('command:'.length))
        : isThere(to) || MADE.some(({ slug }) => slug === to);
      expect([to, known]).toEqual([to, true]);
    }
  });

  it.each(pages)('%s names keys as the commands have them', (file) => {
    const keyed = [...textOf(file).matchAll(/\[([^\]]+)\]\(command:(\w+)\)/g)];
    for (const [, said, name] of keyed) {
      if (!/^(Ctrl\+|Shift\+|Alt\+)|^.$/.test(said as string)) continue;
      expect([name, said]).toEqual([name, keysOf(COMMANDS[name as keyof typeof COMMANDS])]);
    }
    // What stands in brackets after a name is a key of something.
    const keys = new Set(LISTED.flatMap((command) => command.keys ?? []));
    for (const [, key] of textOf(file).matchAll(/\(((?:Ctrl|Shift|Alt)\+\w)\)/g)) expect(keys).toContain(key);
  });

  it('is short: no page takes more than a few minutes', () => {
    for (const file of pages) expect([file, textOf(file).split(/\s+/).length < 480]).toEqual([file, true]);
  });

  it('says of every card what it does', () => {
    const kinds = [...KINDS.values()].filter(({ role }) => role !== 'setting').map(({ kind }) => kind);
    expect(Object.keys(ABOUT).toSorted()).toEqual(kinds.toSorted());
  });
});
