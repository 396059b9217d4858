/** Stands in for `recipe/texts` where a scene has no text: there are no parts of any. */
import type {
  askedOf as wholeAsked,
  partThrough as wholeThrough,
  textsOf as wholeTexts,
  TextsAt,
} from '@kite/core/recipe/texts';

export const NO_TEXTS: TextsAt = () => [];
export const askedOf: typeof wholeAsked = () => ({ all: [], asked: [] });
export const textsOf: typeof wholeTexts = () => NO_TEXTS;
export const partThrough: typeof wholeThrough = (_, part) => part;
