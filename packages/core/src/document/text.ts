/** Texts as people and databases take them. */

let segmenter: Intl.Segmenter | null = null;
/** Made when it is needed: the tables of a language take some 20 ms to be there, in every thread. */
const segments = (): Intl.Segmenter => (segmenter ??= new Intl.Segmenter());

/** NUL and halves of surrogate pairs: no text of a person's has them, and a database refuses them. */
const UNSOUND = /\0|\p{Surrogate}/gu;

/** Whether every character of a text is whole and can be stored. */
export const isSound = (text: string): boolean => text.search(UNSOUND) < 0;

/** The text with U+FFFD, the replacement character, in the place of what is no character. */
export const sound = (text: string): string => text.replaceAll(UNSOUND, '\uFFFD');

/** As much of a text as `most` UTF-16 units hold, cut between characters as a reader counts them (UAX #29). */
export const cutText = (text: string, most: number): string => {
  if (text.length <= most) return text;
  // No character that matters here is longer than a thousand units; reading on to the end would be for nothing.
  for (const { index, segment } of segments().segment(text.slice(0, most + 1_000))) {
    const end = index + segment.length;
    // A single character longer than the limit is cut between its code points.
    if (end > most) return index > 0 ? text.slice(0, index) : sound(text.slice(0, most)).replace(/\uFFFD$/, '');
  }
  return text.slice(0, most);
};

/** A whole number as it is read: 12,500. */
export const thousands = (count: number): string => String(count).replace(/\B(?=(\d{3})+$)/g, ',');

/** A text as a name: in one piece, sound, of at most `most` UTF-16 units; `fallback` where nothing is left. */
export const asName = (text: string, fallback: string, most: number): string => {
  const name = cutText(sound(text), most);
  return name.trim() === '' ? fallback : name;
};
