/** OpenType features by their tags (OpenType 1.9, feature registry), as a text card lists them: `tnum, ss01, -liga`. */

/** Off until they are asked for. */
const ASKED: Readonly<Record<string, string>> = {
  tnum: 'Digits of one width',
  onum: 'Old-style digits',
  lnum: 'Lining digits',
  pnum: 'Proportional digits',
  zero: 'Slashed zero',
  frac: 'Fractions',
  ordn: 'Ordinals',
  sups: 'Superscript',
  subs: 'Subscript',
  smcp: 'Small capitals',
  c2sc: 'Capitals as small capitals',
  case: 'Marks beside capitals',
  titl: 'Titling forms',
  dlig: 'More ligatures',
  swsh: 'Swashes',
  cswh: 'Swashes by context',
  salt: 'Alternates',
  hist: 'Historical forms',
};
/** On until they are put off. */
const GIVEN: Readonly<Record<string, string>> = {
  liga: 'Ligatures',
  calt: 'Forms by context',
  kern: 'Kerning',
};

export interface FontFeature {
  readonly tag: string;
  readonly label: string;
  /** Whether it is on where nothing is said of it. */
  readonly given: boolean;
}

/** What a user may choose of a font's features; digits of one width are made for a font without. `nameOf` is what it calls a set of its own. */
export const choosable = (tags: ReadonlySet<string>, nameOf: (tag: string) => string): FontFeature[] => {
  const known = [
    ...Object.entries(ASKED).map(([tag, label]) => ({ tag, label, given: false })),
    ...Object.entries(GIVEN).map(([tag, label]) => ({ tag, label, given: true })),
  ].filter(({ tag }) => tag === 'tnum' || tags.has(tag));
  const own = [...tags].filter((tag) => /^(ss|cv)\d\d$/.test(tag)).sort();
  const called = (tag: string) => nameOf(tag) || `${tag.startsWith('ss') ? 'Set' : 'Letter'} ${Number(tag.slice(2))}`;
  return [...known, ...own.map((tag) => ({ tag, label: called(tag), given: false }))];
};

/** Each tag, and whether it is asked for or put off; what is no tag is passed over. */
export const readFeatures = (list: string): ReadonlyMap<string, boolean> =>
  new Map(
    list
      .split(',')
      .map((one) => one.trim())
      .filter((one) => /^-?[a-z0-9]{4}$/i.test(one))
      .map((one) => (one.startsWith('-') ? [one.slice(1), false] : [one, true])),
  );

/** The list with a feature on or off. */
export const withFeature = (list: string, { tag, given }: FontFeature, on: boolean): string => {
  const features = new Map(readFeatures(list));
  features.delete(tag);
  if (on !== given) features.set(tag, on);
  return [...features].map(([other, is]) => (is ? other : `-${other}`)).join(', ');
};
