/** How much of everything a project may have. The schema refuses what is beyond; edits keep to it. */
/** Degrees: beyond them the middle of a scene is hardly seen. */
export const WIDEST_EYE = 150;

export const LIMITS = {
  scenes: 200,
  layers: 2_000,
  items: 5_000,
  keys: 5_000,
  name: 200,
  side: 8_192,
  length: 200_000,
  frame: 1_000_000,
  rate: 240,
  assets: 2_000,
  swatches: 200,
  knobs: 100,
  guides: 200,
  markers: 1_000,
  moves: 200,
  /** Kept under one name. */
  effects: 100,
  sets: 2_000,
  deliveries: 200,
  /** Rows of the table of versions, what differs in them, and places that say the same words. */
  versions: 200,
  versionColumns: 50,
  versionPlaces: 1_000,
  /** Files that are asked for by one press. */
  filesAtOnce: 1_000,
  /** Of a scene, and pictures that its strip makes of them. */
  poses: 200,
  held: 500,
  /** Frames in which one scene of a film passes into the next. */
  fade: 1_000,
  /** Of a picture, along each side and in all. */
  pictureSide: 16_384,
  picturePixels: 64_000_000,
  cutSeeds: 200,
  cutPoints: 20_000,
  /** Where something grows from, waits, or goes on at another pace. */
  growthPoints: 100,
  /** Strokes that it follows, and points of each. */
  growthStrokes: 200,
  strokePoints: 2_000,
  /** Of a brush, in one card. */
  brushStrokes: 2_000,
} as const;

type Limits = readonly [least: number, most: number];

/** Of the numbers of an ease. */
export const EASE_LIMITS = {
  /** Along the value; along time a curve stays within its span. */
  y: [-100, 100],
  steps: [2, 1_000],
  bounces: [1, 50],
  height: [0, 0.95],
  points: 500,
} as const satisfies { readonly [key: string]: Limits | number };

/** Of the numbers of moves and routines. */
export const MOVE_LIMITS = {
  frames: [1, 100_000],
  angle: [-36_000, 36_000],
  scale: [-100, 100],
  times: [1, 100],
  gap: [-100_000, 100_000],
  grow: [-1_000, 1_000],
  rounds: [1, 1_000],
  speed: [0.01, 100],
  seed: [0, 1_000_000],
} as const satisfies { readonly [key: string]: Limits };

/** Of a strip of poses: frames that one stays, pictures in between, frames that each of those stays. */
export const POSE_LIMITS = {
  hold: [1, 100_000],
  between: [0, 100],
  each: [1, 1_000],
} as const satisfies { readonly [key: string]: Limits };

/** Of where something grows from: pixels that it waits, and times as fast as everything goes. */
export const GROWTH_LIMITS = {
  wait: [0, 100_000],
  pace: [0.05, 20],
} as const satisfies { readonly [key: string]: Limits };

/** What a brush draws with; `own` is the picture that its card names. */
export const BRUSH_TIPS = [
  'round',
  'flat',
  'chalk',
  'charcoal',
  'pencil',
  'bristles',
  'sponge',
  'spatter',
  'own',
] as const;

/** Of the strokes of a brush. */
export const BRUSH_LIMITS = {
  size: [0.1, 2_000],
  thins: [0, 1],
  taper: [0, 0.5],
  opacity: [0, 1],
  seed: [0, 9_999],
} as const satisfies { readonly [key: string]: Limits };

/** Of how a picture is cut out, in pixels of the picture. */
export const CUT_LIMITS = {
  grow: [-200, 200],
  soften: [0, 200],
  brush: [0.01, 2_000],
} as const satisfies { readonly [key: string]: Limits };
