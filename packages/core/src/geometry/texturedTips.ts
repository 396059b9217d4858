/** Tips of a brush that leave grain: what they cover is outlines as of any other, so that it is as sharp at every size and in every output. */
import { hashed, seeded } from '../document/random';
import type { BrushStroke, BrushTip, Point } from '../document/types';
import { everySoFar, type Way } from './brushWay';
import { type Outline, polygon, smoothThrough } from './outline';

/** A tip that scatters specks along its way. Lengths are shares of half the stroke's breadth. */
interface Grain {
  /** From one scattering to the next. */
  readonly every: number;
  /** Specks of each. */
  readonly specks: number;
  /** Their least and greatest radius; how much commoner small ones are: 1 for as common. */
  readonly radius: readonly [least: number, most: number];
  readonly small: number;
  /** How far they lie to each side; how much they keep to the middle: 1 for nothing. */
  readonly spread: number;
  readonly middle: number;
  /** How much longer than broad; `along` the way, or as the paper's grain lies. */
  readonly long: number;
  readonly lies: 'along' | 'slanted' | 'anyhow';
  readonly corners: number;
  readonly edges: 'sharp' | 'round';
}

const GRAINS = {
  chalk: {
    every: 0.24,
    specks: 10,
    radius: [0.1, 0.24],
    small: 1.3,
    spread: 0.95,
    middle: 0.85,
    long: 1.4,
    lies: 'anyhow',
    corners: 5,
    edges: 'sharp',
  },
  charcoal: {
    every: 0.2,
    specks: 9,
    radius: [0.03, 0.2],
    small: 2.4,
    spread: 1.15,
    middle: 1.7,
    long: 2.6,
    lies: 'slanted',
    corners: 5,
    edges: 'sharp',
  },
  pencil: {
    every: 0.22,
    specks: 8,
    radius: [0.05, 0.12],
    small: 1,
    spread: 0.85,
    middle: 1.3,
    long: 2.8,
    lies: 'along',
    corners: 4,
    edges: 'sharp',
  },
  sponge: {
    every: 0.55,
    specks: 9,
    radius: [0.06, 0.3],
    small: 2,
    spread: 0.95,
    middle: 0.9,
    long: 1.2,
    lies: 'anyhow',
    corners: 6,
    edges: 'round',
  },
  spatter: {
    every: 0.5,
    specks: 5,
    radius: [0.02, 0.34],
    small: 3.4,
    spread: 1.9,
    middle: 1.6,
    long: 1,
    lies: 'anyhow',
    corners: 7,
    edges: 'round',
  },
} as const satisfies { readonly [tip: string]: Grain };

/** The most specks of one stroke: a longer one has them further apart, and as much longer. */
const MOST_SPECKS = 3_000;
/** As the grain of a paper lies, in radians. */
const SLANT = -0.6;

const scattered = (stroke: BrushStroke, way: Way, grain: Grain): readonly Outline[] => {
  const random = seeded(hashed((stroke.seed ?? 0) + 1) / 4_294_967.296);
  const far = (grain.every * stroke.size) / 2;
  const wanted = (way.whole / far) * grain.specks;
  const stretched = Math.max(1, wanted / MOST_SPECKS);
  const spots = everySoFar(stroke, way, far * stretched);
  return spots.flatMap(({ x, y, turn, half }) =>
    Array.from({ length: grain.specks }, (): Outline => {
      const side = random() < 0.5 ? -1 : 1;
      const off = side * random() ** grain.middle * grain.spread * half;
      const on = (random() - 0.5) * 2 * far * stretched;
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const [cx, cy] = [x + on * c - off * s, y + on * s + off * c];
      const r = half * (grain.radius[0] + (grain.radius[1] - grain.radius[0]) * random() ** grain.small);
      const tilt = grain.lies === 'along' ? turn : grain.lies === 'slanted' ? SLANT : random() * 2 * Math.PI;
      const [a, b] = [r * grain.long * Math.sqrt(stretched), r];
      const [tc, ts] = [Math.cos(tilt), Math.sin(tilt)];
      const corners = Array.from({ length: grain.corners }, (_, i): Point => {
        const at = ((i + 0.7 * (random() - 0.5)) / grain.corners) * 2 * Math.PI;
        const rough = grain.edges === 'sharp' ? 0.75 + 0.5 * random() : 0.9 + 0.2 * random();
        const [u, v] = [Math.cos(at) * a * rough, Math.sin(at) * b * rough];
        return [cx + u * tc - v * ts, cy + u * ts + v * tc];
      });
      return grain.edges === 'sharp' ? polygon(corners) : smoothThrough(corners, true);
    }),
  );
};

/** Hairs of a brush that is nearly dry, and where along them they leave paint: from one look to the next, in half breadths. */
const [HAIRS, LOOKS] = [17, 0.5];
const MOST_LOOKS = 400;

/** Each hair leaves a line of its own, which breaks off and comes back, the more often the further it is from the middle. */
const bristled = (stroke: BrushStroke, way: Way): readonly Outline[] => {
  const seed = (stroke.seed ?? 0) + 1;
  const far = Math.max((LOOKS * stroke.size) / 2, way.whole / MOST_LOOKS);
  const spots = everySoFar(stroke, way, far);
  const out: Outline[] = [];
  for (let hair = 0; hair < HAIRS; hair++) {
    const random = seeded(hashed(seed * HAIRS + hair) / 4_294_967.296);
    const off = ((hair + 0.5 + 0.6 * (random() - 0.5)) / HAIRS) * 2 - 1;
    const thick = (0.5 + 0.9 * random()) / HAIRS;
    const dry = 0.08 + 0.34 * off * off;
    let [run, wet] = [[] as { left: Point; right: Point }[], random() > dry];
    const end = () => {
      if (run.length > 1) {
        const back = run.map(({ right }) => right).reverse();
        out.push(smoothThrough([...run.map(({ left }) => left), ...back], true));
      }
      run = [];
    };
    for (const { x, y, turn, half } of spots) {
      const [nx, ny] = [-Math.sin(turn), Math.cos(turn)];
      const middle = off * half;
      const broad = thick * half * (0.7 + 0.6 * random());
      if (wet) {
        const to = (way: -1 | 1): Point => [x + nx * (middle + way * broad), y + ny * (middle + way * broad)];
        run.push({ left: to(-1), right: to(1) });
      } else end();
      // A dry hair finds paint again sooner than a wet one loses it.
      wet = wet ? random() > dry * 0.5 : random() > 0.45 + dry * 0.5;
    }
    end();
  }
  return out;
};

/** The tips that leave grain. */
export const TEXTURED = {
  chalk: (stroke, way) => scattered(stroke, way, GRAINS.chalk),
  charcoal: (stroke, way) => scattered(stroke, way, GRAINS.charcoal),
  pencil: (stroke, way) => scattered(stroke, way, GRAINS.pencil),
  bristles: bristled,
  sponge: (stroke, way) => scattered(stroke, way, GRAINS.sponge),
  spatter: (stroke, way) => scattered(stroke, way, GRAINS.spatter),
} as const satisfies { readonly [tip: string]: (stroke: BrushStroke, way: Way) => readonly Outline[] };

export const isTextured = (tip: BrushTip): tip is keyof typeof TEXTURED => tip in TEXTURED;
