/** What a scene asked of its fonts, kept so that a banner needs neither the fonts nor an engine for them. */
import type { FontChoice } from '../document/types';
import { askedAs, type GlyphPath, glyphsFrom, UNITS } from './glyphs';
import type { Face, Fonts, Glyph, Metrics } from './types';

/** A glyph of a text that was set: id, cluster, and in units advance, x and y; level, and whether a line may end there. No zeros at the end. */
type RecordedGlyph = readonly number[];

export interface RecordedFace {
  readonly metrics: Metrics;
  /** By features and text, as `askedAs` has it. */
  readonly shaped: { [text: string]: readonly RecordedGlyph[] };
  /** Units per em, then drawing commands, each with the way from where the one before ended: `1000M480-16Q-132 0-231 49`. */
  readonly paths: { [glyph: number]: string };
}
/** By font choice, as JSON. */
export type RecordedFonts = { [choice: string]: RecordedFace };

const packedGlyph = ({ id, cluster, advance, x, y, level, breaks }: Glyph): RecordedGlyph => {
  const all = [id, cluster, advance * UNITS, x * UNITS, y * UNITS, level, breaks];
  return all.slice(0, all.findLastIndex((value) => value !== 0) + 1);
};
const glyphOf = ([id = 0, cluster = 0, advance = 0, x = 0, y = 0, level = 0, breaks = 0]: RecordedGlyph): Glyph => ({
  id,
  cluster,
  advance: advance / UNITS,
  x: x / UNITS,
  y: y / UNITS,
  level,
  breaks,
});

/** Numbers one after another: a minus parts them, too. */
const joined = (values: readonly number[]): string => values.join(' ').replaceAll(' -', '-');

/** Units per em that most fonts are drawn in, and halves of them, which lie between two curves: there is less to write in them. */
const OWN_UNITS = [1_000, 2_000, 2_048, 4_096];
const brought = (value: number, from: number, to: number): number =>
  from === to ? value : Math.round((value * to) / from);

/** The coarsest units per em in which all of a path is what it is. */
const unitsOf = (path: GlyphPath): number =>
  OWN_UNITS.find((units) =>
    path.every(([, ...values]) => values.every((v) => brought(brought(v, UNITS, units), units, UNITS) === v)),
  ) ?? UNITS;

/** A path by the ways between its points, which are shorter to write and like each other. */
export const packedPath = (path: GlyphPath): string => {
  const units = unitsOf(path);
  let at: readonly [number, number] = [0, 0];
  const commands = path
    .map(([command, ...own]) => {
      const values = own.map((value) => brought(value, UNITS, units));
      const ways = values.map((value, i) => value - at[i % 2]!);
      at = (values.length > 0 ? values.slice(-2) : at) as [number, number];
      return command + joined(ways);
    })
    .join('');
  return commands && units + commands;
};

export const pathFrom = (packed: string): GlyphPath => {
  const units = parseInt(packed);
  let at: readonly [number, number] = [0, 0];
  return [...packed.matchAll(/([A-Z])([^A-Z]*)/g)].map(([, command, ways]) => {
    const values = (ways?.match(/-?[^ -]+/g) ?? []).map((way, i) => Number(way) + at[i % 2]!);
    at = (values.length > 0 ? values.slice(-2) : at) as [number, number];
    return [command as string, ...values.map((value) => brought(value, units, UNITS))];
  });
};

const recordedFace = (face: Face, into: RecordedFace): Face => {
  const path = (glyph: number): GlyphPath => {
    const own = face.path(glyph);
    into.paths[glyph] ??= packedPath(own);
    return own;
  };
  return {
    metrics: face.metrics,
    shape: (text, features) => {
      const glyphs = face.shape(text, features);
      into.shaped[askedAs(text, features)] = glyphs.map(packedGlyph);
      return glyphs;
    },
    outlines: (glyph) => {
      path(glyph);
      return face.outlines(glyph);
    },
    path,
  };
};

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

/** Whether some of what was set runs from right to left. */
export const runsLeftward = (record: RecordedFonts): boolean =>
  Object.values(record).some(({ shaped }) =>
    Object.values(shaped).some((glyphs) => glyphs.some((glyph) => glyphOf(glyph).level > 0)),
  );

export const replayed = (record: RecordedFonts): Fonts => {
  const faces = new Map(
    Object.entries(record).map(([key, { metrics, shaped, paths }]): [string, Face] => [
      key,
      {
        metrics,
        shape: (text, features) => (shaped[askedAs(text, features)] ?? []).map(glyphOf),
        ...glyphsFrom((glyph) => pathFrom(paths[glyph] ?? '')),
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
