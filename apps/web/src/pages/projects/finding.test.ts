import { describe, expect, it } from 'vitest';
import { shownOf, tagsOf, wantedIn } from './finding';
import { tagsIn } from './TagsDialog';

const card = (name: string, updatedAt: string, scenes: number, ...tags: string[]) => ({
  id: name,
  name,
  updatedAt,
  scenes,
  tags,
});
const ALL = [
  card('Night Tram', '2026-11-01', 3, 'tram'),
  card('Café Quay 10', '2026-11-03', 1, 'spring'),
  card('Café Quay 2', '2026-11-02', 2, 'spring', 'tram'),
];
const names = (query: string) => shownOf(ALL, wantedIn(new URLSearchParams(query))).map(({ name }) => name);

describe('projects', () => {
  it('are found by parts of their names and by words, whatever the accents', () => {
    expect(names('find=cafe')).toEqual(['Café Quay 10', 'Café Quay 2']);
    expect(names('find=tram')).toEqual(['Café Quay 2', 'Night Tram']);
    expect(names('find=quay tram')).toEqual(['Café Quay 2']);
    expect(names('tag=spring&find=10')).toEqual(['Café Quay 10']);
  });
  it('are sorted, numbers in names as numbers', () => {
    expect(names('')).toEqual(['Café Quay 10', 'Café Quay 2', 'Night Tram']);
    expect(names('sort=name')).toEqual(['Café Quay 2', 'Café Quay 10', 'Night Tram']);
    expect(names('sort=scenes')).toEqual(['Night Tram', 'Café Quay 2', 'Café Quay 10']);
    expect(names('sort=nonsense')).toEqual(names(''));
  });
  it('have words that are read from a line', () => {
    expect(tagsIn(' tram,, spring ,tram, ')).toEqual(['tram', 'spring']);
    expect(tagsOf(ALL)).toEqual(['spring', 'tram']);
  });
});
