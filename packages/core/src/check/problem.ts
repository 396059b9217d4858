import { cutText, sound } from '../document/text';

/** A message is to be read: names of two hundred fields are not. */
const MOST_MESSAGE = 500;

/** What is wrong with something from outside, in words for people: never a stack. */
export class Invalid extends Error {
  constructor(
    message: string,
    /** The field, as a path of keys: `scenes.s1.layers.l2.params.opacity`. */
    readonly field: string = '',
  ) {
    super(cutText(message, MOST_MESSAGE));
    this.name = 'Invalid';
  }
}

/** A value as a message shows it. */
export const shown = (value: unknown): string => {
  if (value === undefined) return 'nothing';
  if (value === null) return 'null';
  if (typeof value === 'number') return String(value);
  if (typeof value === 'string') return `the text "${sound(value.length > 40 ? `${cutText(value, 40)}…` : value)}"`;
  if (Array.isArray(value)) return `a list of ${value.length}`;
  return typeof value === 'object' ? 'an object' : `a ${typeof value}`;
};
