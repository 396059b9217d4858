/** How others are told apart: by a colour and by letters. */
import type { Here } from '@kite/api/live';

/** Of the colours of tags those that letters are read on, by day and by dusk. */
const COLORS = ['teal', 'violet', 'rose', 'blue', 'leaf', 'slate'] as const;

/** The same for a person in every page. */
export const colorOf = ({ person }: Here): string => {
  const sum = [...person.id].reduce((all, letter) => (all * 31 + letter.charCodeAt(0)) % 9973, 7);
  return `var(--tag-${COLORS[sum % COLORS.length]})`;
};

/** Two letters at the most. */
export const lettersOf = (name: string): string =>
  name
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, 2)
    .map((word) => [...word][0]?.toUpperCase() ?? '')
    .join('');

/** Somebody may have several pages open, and be in another of one's own. */
export const nameOf = ({ person }: Here, me: string): string =>
  person.id === me ? 'You, in another tab' : person.name;
