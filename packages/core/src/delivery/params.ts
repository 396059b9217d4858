/** Settings that several formats have. */
import { number } from '../document/params';

export const plays = number('Plays', 0, { min: 0, max: 65_535, whole: true, hint: 'times; 0 is for ever' });
