/** What is to be said of a drawing's fonts. */
import type { DrawingLayer, FontChoice } from '../document/types';
import { fontLabel } from '../motion/kinds/font';
import { needsOf, valuesOf } from '../recipe/needs';
import { text } from '../recipe/sources/text';
import { cased } from '../type/layout';
import type { Fonts } from '../type/types';
import type { Problem } from './program';

/** So many letters are named. */
const MOST_NAMED = 8;

/** The letters of a drawing's texts that a font of theirs has not, in all that they say by themselves. */
const lacking = (layer: DrawingLayer, fonts: Fonts): ReadonlyMap<string, ReadonlySet<string>> => {
  const lacks = new Map<string, Set<string>>();
  const { params } = text;
  for (const { kind, on, params: own } of Object.values(layer.items)) {
    if (kind !== text.kind || !on) continue;
    for (const choice of valuesOf(own.font, params.font.default) as FontChoice[]) {
      const found = fonts.find(choice);
      const letters = valuesOf(own.text, params.text.default).flatMap((said) =>
        valuesOf(own.letters, params.letters.default).flatMap(
          (as) => found?.face.facts?.lacks(cased(said as string, as as typeof params.letters.default)) ?? [],
        ),
      );
      if (letters.length === 0) continue;
      const label = fontLabel(found?.instead ?? choice);
      lacks.set(label, new Set([...(lacks.get(label) ?? []), ...letters]));
    }
  }
  return lacks;
};

/** Fonts that others stand in for, and letters that fonts have not. */
export const fontProblems = (layer: DrawingLayer, fonts: Fonts): Problem[] => {
  const gone = needsOf(layer).fonts.flatMap((choice) => {
    const instead = fonts.find(choice)?.instead;
    return instead
      ? [`asks for the font ${fontLabel(choice)}, which is not here; ${fontLabel(instead)} stands in for it`]
      : [];
  });
  const lacks = [...lacking(layer, fonts)].map(([font, letters]) => {
    const named = [...letters].slice(0, MOST_NAMED).join(' ');
    return `has letters that ${font} lacks: ${named}${letters.size > MOST_NAMED ? ' …' : ''}`;
  });
  return [...gone, ...lacks].map((message) => ({ layer: layer.id, message }));
};
