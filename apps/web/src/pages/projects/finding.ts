/** Which projects are shown, and in which order: kept in the address, so that going back leads there again. */
import type { ProjectCard } from '@kite/api/projects';

export const SORTS = { changed: 'Changed last', name: 'By name', scenes: 'Most scenes' } as const;
export type Sort = keyof typeof SORTS;

export interface Wanted {
  /** Words that the name or a tag has, all of them. */
  readonly find: string;
  readonly tag: string | null;
  readonly sort: Sort;
}

export const wantedIn = (params: URLSearchParams): Wanted => {
  const sort = params.get('sort') ?? '';
  return {
    find: params.get('find') ?? '',
    tag: params.get('tag'),
    sort: Object.hasOwn(SORTS, sort) ? (sort as Sort) : 'changed',
  };
};

const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

const ORDERS: Record<Sort, (a: ProjectCard, b: ProjectCard) => number> = {
  changed: (a, b) => b.updatedAt.localeCompare(a.updatedAt),
  name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
  scenes: (a, b) => b.scenes - a.scenes,
};

export const shownOf = (projects: readonly ProjectCard[], { find, tag, sort }: Wanted): ProjectCard[] => {
  const words = folded(find).split(/\s+/).filter(Boolean);
  return projects
    .filter(({ name, tags }) => {
      const text = folded([name, ...tags].join(' '));
      return (tag === null || tags.includes(tag)) && words.every((word) => text.includes(word));
    })
    .toSorted(ORDERS[sort]);
};

/** All words that projects are found by, in the order of the alphabet. */
export const tagsOf = (projects: readonly ProjectCard[]): string[] =>
  [...new Set(projects.flatMap(({ tags }) => tags))].toSorted((a, b) => a.localeCompare(b));
