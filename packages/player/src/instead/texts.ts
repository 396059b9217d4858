/** Stands in for `recipe/texts` where a scene has no text: there are no parts of any. */
import type { askedOf as wholeAsked, textsOf as wholeTexts, TextsAt } from '@kite/core/recipe/texts';

export const NO_TEXTS: TextsAt = () => [];
export const askedOf: typeof wholeAsked = () => [];
export const textsOf: typeof wholeTexts = () => NO_TEXTS;
