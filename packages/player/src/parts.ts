/**
 * What of the core's source the player of a banner carries: the parts that only some scenes need, and what tells that a scene
 * does. Whatever else the player reaches is in all of them.
 */
import type { Ease, ValueKind } from '@kite/core/document/types';
import { FUNCTION_GROUPS } from '@kite/core/formula/functions/table';

/** What a scene uses, with all that it nests. */
export interface Uses {
  /** Kinds of cards that are on. */
  readonly cards: ReadonlySet<string>;
  /** Kinds of values that these cards, the layers and their knobs have. */
  readonly values: ReadonlySet<ValueKind>;
  readonly eases: ReadonlySet<Ease['kind']>;
  /** Kinds of values between which there is something between, as between keyframes. */
  readonly mixed: ReadonlySet<ValueKind>;
  /** Whether points go along curves. */
  readonly curves: boolean;
  /** Parameters of cards that are not at their default values, as `stroke/dashes`. */
  readonly given: ReadonlySet<string>;
  /** Whether paints give each shape a colour of its own. */
  readonly each: boolean;
  readonly formulas: boolean;
  /** Functions that formulas call. */
  readonly calls: ReadonlySet<string>;
  /** Whether a layer stands in depth. */
  readonly depth: boolean;
  /** Whether layers lead to pages of their own. */
  readonly areas: boolean;
  /** Whether cards name other layers, or show what lies behind theirs. */
  readonly others: boolean;
  /** What was seen in the frames that it plays. */
  readonly marks: {
    readonly cuts: boolean;
    readonly growths: boolean;
    readonly bends: boolean;
    readonly effects: boolean;
    /** Whether text runs from right to left. */
    readonly leftward: boolean;
    /** Whether curves of strokes reach so far that they are drawn as lines. */
    readonly far: boolean;
    /** Whether something was left out of a frame, or told of it. */
    readonly told: boolean;
  };
}

/**
 * Where the player asks for what only some scenes need. It is left out there alone: a card that needs it for itself asks for it
 * by itself, and is there only with what it asks for.
 */
interface Seam {
  /** Modules of the core that ask for it, or of the player, as `player/…`. */
  readonly at: readonly string[];
  /** Those that are asked for. */
  readonly modules: readonly string[];
  /** The module of the player that stands in for them; without one there is nothing in their place, since nothing in it is called. */
  readonly instead?: string;
  readonly neededBy: (uses: Uses) => boolean;
}

/** Cards that show where their layer was: see `since` in recipe/types. */
const LOOKING_BACK = ['trail', 'motion-blur'];

/** Whether something may be seen through a map that does not keep parallels. */
const isMapped = ({ depth, cards, given }: Uses): boolean =>
  depth || cards.has('pin') || cards.has('mesh') || given.has('along/lies');

export const SEAMS: readonly Seam[] = [
  { at: ['player/player'], modules: ['player/areas'], neededBy: ({ areas }) => areas },
  { at: ['scene/compile'], modules: ['formula/wiring'], instead: 'wiring', neededBy: ({ formulas }) => formulas },
  { at: ['scene/follows'], modules: ['formula/reads'], neededBy: ({ formulas }) => formulas },
  { at: ['formula/wiring'], modules: ['formula/ground'], neededBy: ({ calls }) => calls.has('here') },
  {
    at: ['formula/wiring'],
    modules: ['formula/textSize'],
    neededBy: ({ calls }) => calls.has('textWidth') || calls.has('textHeight'),
  },
  { at: ['scene/compile'], modules: ['scene/depth'], neededBy: ({ depth }) => depth },
  {
    at: ['scene/eye', 'scene/whereabouts', 'geometry/through', 'recipe/marksThrough'],
    modules: ['geometry/homography'],
    neededBy: isMapped,
  },
  { at: ['recipe/marksThrough'], modules: ['recipe/bent'], neededBy: isMapped },
  { at: ['recipe/steps/along'], modules: ['recipe/bent'], neededBy: ({ given }) => given.has('along/lies') },
  { at: ['recipe/bent'], modules: ['geometry/polygons'], neededBy: ({ cards }) => cards.has('stroke') },
  { at: ['recipe/marks'], modules: ['geometry/warp'], neededBy: isMapped },
  {
    at: ['recipe/marks'],
    modules: ['recipe/data'],
    neededBy: ({ cards }) => cards.has('chart') || cards.has('labels'),
  },
  {
    at: ['scene/compile'],
    modules: ['scene/around'],
    instead: 'around',
    neededBy: ({ others, cards }) => others || LOOKING_BACK.some((kind) => cards.has(kind)),
  },
  { at: ['scene/around'], modules: ['scene/follows'], neededBy: ({ others }) => others },
  { at: ['scene/compile'], modules: ['scene/pixels'], instead: 'pixels', neededBy: ({ marks }) => marks.told },
  // Its fonts are written into it, and nobody is told of them.
  { at: ['scene/layers'], modules: ['scene/fonts'], instead: 'fonts', neededBy: () => false },
  { at: ['scene/compile'], modules: ['scene/turned'], neededBy: ({ values }) => values.has('scene') },
  {
    at: ['scene/whereabouts'],
    modules: ['scene/eye'],
    instead: 'eye',
    neededBy: ({ depth }) => depth,
  },
  { at: ['recipe/evaluate'], modules: ['recipe/texts'], instead: 'texts', neededBy: ({ cards }) => cards.has('text') },
  { at: ['type/layout'], modules: ['type/breaking'], neededBy: ({ given }) => given.has('text/frame') },
  { at: ['recipe/sources/text'], modules: ['type/fitting'], neededBy: ({ given }) => given.has('text/fit') },
  { at: ['type/layout'], modules: ['type/pairs'], neededBy: ({ given }) => given.has('text/pairs') },
  { at: ['type/layout'], modules: ['type/directions'], neededBy: ({ marks }) => marks.leftward },
  {
    at: ['recipe/paints/stroke'],
    modules: ['recipe/paints/taper'],
    neededBy: ({ given }) => given.has('stroke/taperStart') || given.has('stroke/taperEnd'),
  },
  {
    at: ['recipe/paints/stroke'],
    modules: ['recipe/paints/dashes'],
    instead: 'dashes',
    neededBy: ({ given }) => given.has('stroke/fit'),
  },
  { at: ['recipe/paints/fill'], modules: ['recipe/paints/oval'], neededBy: ({ given }) => given.has('fill/breadth') },
  {
    at: ['recipe/covers/mask'],
    modules: ['recipe/covers/lightness'],
    neededBy: ({ given }) => given.has('mask/by'),
  },
  { at: ['recipe/paints/fill', 'recipe/paints/stroke'], modules: ['recipe/paints/each'], neededBy: ({ each }) => each },
  // Only files of SVG have it.
  { at: ['recipe/covers/outline'], modules: ['recipe/covers/outlineSvg'], neededBy: () => false },
  // Only settings of files have them.
  { at: ['motion/kinds/text'], modules: ['motion/textForms'], neededBy: () => false },
  { at: ['motion/kinds/color'], modules: ['motion/color'], neededBy: ({ mixed }) => mixed.has('color') },
  { at: ['motion/kinds/gradient'], modules: ['motion/gradients'], neededBy: ({ mixed }) => mixed.has('gradient') },
  { at: ['motion/kinds/path'], modules: ['motion/morph'], neededBy: ({ mixed }) => mixed.has('path') },
  { at: ['motion/track'], modules: ['geometry/length'], neededBy: ({ curves }) => curves },
  { at: ['paint/canvas'], modules: ['paint/effects'], neededBy: ({ marks }) => marks.effects },
  { at: ['paint/canvas'], modules: ['paint/far'], instead: 'far', neededBy: ({ marks }) => marks.far },
  {
    at: ['paint/canvas'],
    modules: ['paint/grain'],
    neededBy: ({ given }) => [...given].some((key) => key.endsWith('/grain')),
  },
  { at: ['paint/apart'], modules: ['paint/bend'], neededBy: ({ marks }) => marks.bends },
  { at: ['paint/apart'], modules: ['paint/cuts'], neededBy: ({ marks }) => marks.cuts },
  { at: ['paint/cuts'], modules: ['paint/growth'], neededBy: ({ marks }) => marks.growths },
];

/** Properties of definitions that tell of them, and where in the core these are: whoever asks for them has an interface. */
interface Telling {
  readonly folder: string;
  readonly keys: readonly string[];
}
export const TELLING: readonly Telling[] = [
  { folder: 'recipe', keys: ['summary', 'hint', 'example', 'holding', 'fitting', 'onDrawn', 'repainted', 'svg'] },
  { folder: 'motion/kinds', keys: ['says'] },
  { folder: 'formula', keys: ['says', 'example'] },
];
/** What cards, their parameters and choices are called: formulas name them so. */
export const CALLED: Telling = { folder: 'recipe', keys: ['label'] };

/** Tables of the core: of the modules that each lists, a player has those that its scene uses. */
interface Table {
  readonly module: string;
  /** Whether a module is an entry of the table, and is used; what is no entry is always there. */
  readonly uses: (name: string, uses: Uses) => boolean;
}

/** A card's module is called by its kind. */
const isOf = (module: string, kind: string): boolean => module.toLowerCase() === kind.replaceAll('-', '');
const LINKS = ['asset', 'scene', 'layer'] as const;

/** The name of a module that stands beside its table. */
const besides = (path: string): string | undefined => /^\.\/(\w+)$/.exec(path)?.[1];

export const TABLES: readonly Table[] = [
  {
    module: 'recipe/table',
    uses: (path, { cards }) => {
      const name = /^\.\/(?:sources|steps|covers|paints|groups)\/(\w+)$/.exec(path)?.[1];
      return name === undefined || [...cards].some((kind) => isOf(name, kind));
    },
  },
  {
    module: 'motion/kinds/table',
    uses: (path, { values }) => {
      const name = besides(path);
      if (name === undefined) return true;
      return name === 'links' ? LINKS.some((kind) => values.has(kind)) : values.has(name as ValueKind);
    },
  },
  {
    module: 'formula/functions/table',
    uses: (path, { calls }) => {
      const name = besides(path);
      const group = FUNCTION_GROUPS[name as keyof typeof FUNCTION_GROUPS];
      return !group || group.some((each) => calls.has(each.name));
    },
  },
  {
    module: 'motion/eases/table',
    uses: (path, { eases }) => {
      const name = besides(path);
      return name === undefined || eases.has(name as Ease['kind']);
    },
  },
];
