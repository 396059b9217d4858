/** What a scene asked of its fonts, kept so that a banner needs neither the fonts nor an engine for them. */
import type { FontChoice } from '../document/types';
import { type GlyphPath, glyphsFrom } from './glyphs';
import type { Face, Fonts, Glyph, Metrics } from './types';

export interface RecordedFace {
  readonly metrics: Metrics;
  /** By ligatures and text: `on:Night`. */
  readonly shaped: { [text: string]: readonly Glyph[] };
  readonly paths: { [glyph: number]: GlyphPath };
}
/** By font choice, as JSON. */
export type RecordedFonts = { [choice: string]: RecordedFace };

const recordedFace = (face: Face, into: RecordedFace): Face => ({
  metrics: face.metrics,
  shape: (text, ligatures) => (into.shaped[`${ligatures}:${text}`] = face.shape(text, ligatures)),
  outlines: (glyph) => {
    into.paths[glyph] = face.path(glyph);
    return face.outlines(glyph);
  },
  path: (glyph) => (into.paths[glyph] = face.path(glyph)),
});

/** Fonts that write down what they are asked for. */
export const recording = (fonts: Fonts): { readonly fonts: Fonts; readonly record: RecordedFonts } => {
  const record: RecordedFonts = {};
  const faces = new Map<string, ReturnType<Fonts['find']>>();
  const find = (choice: FontChoice) => {
    const key = JSON.stringify(choice);
    let found = faces.get(key);
    if (found === undefined) {
      found = fonts.find(choice);
      if (found) {
        const into: RecordedFace = { metrics: found.face.metrics, shaped: {}, paths: {} };
        record[key] = into;
        found = { ...found, face: recordedFace(found.face, into) };
      }
      faces.set(key, found);
    }
    return found;
  };
  return { fonts: { find }, record };
};

export const replayed = (record: RecordedFonts): Fonts => {
  const faces = new Map(
    Object.entries(record).map(([key, { metrics, shaped, paths }]): [string, Face] => [
      key,
      {
        metrics,
        shape: (text, ligatures) => shaped[`${ligatures}:${text}`] ?? [],
        ...glyphsFrom((glyph) => paths[glyph] ?? []),
      },
    ]),
  );
  return {
    find: (choice) => {
      const face = faces.get(JSON.stringify(choice));
      return face ? { face, instead: null } : null;
    },
  };
};
