/** Clouds: noise summed over octaves, in colours. */
import type { Point } from '../document/types';
import { hashed } from '../document/random';
import type { Pixels } from './mapped';
import { octaveOf, type Octave } from './noise';
import { rowsFor } from './rows';
import { type Placed, type Shades, wholePixels } from './pixels';

export type CloudForm = 'soft' | 'ridged' | 'folded';

export interface Clouds {
  /** Of the largest cells, in its own pixels. */
  readonly size: number;
  /** Its own pixels after which it is the same again, along both sides; 0 for never. */
  readonly tile: number;
  /** Of all of it, in radians. */
  readonly angle: number;
  /** Each has cells half as large as the one before it. */
  readonly octaves: number;
  /** How strong each octave is beside the one before it, 0 to 1. */
  readonly roughness: number;
  /** As it is; with a crest where it passes its middle; or with a crease there. */
  readonly form: CloudForm;
  /** Of its gradients: whole ones bring the same picture again. */
  readonly turns: number;
  /** By which all of it is moved, in its own pixels. */
  readonly shift: Point;
  /** Times as far from the middle. */
  readonly contrast: number;
  /** Added to all of it, -1 to 1. */
  readonly level: number;
  readonly seed: number;
}

/** How many times as fast the gradients of each octave turn: whole numbers, so that all are round at once. */
const SPEEDS = [1, 1, 2, 2, 3, 3, 4, 4] as const;

/** The octaves of clouds over a picture with the share of each, and what all shares make. */
const octavesOf = (clouds: Clouds, width: number, { scale, origin, turn: turned }: Placed) => {
  const { size, tile, angle, roughness, turns, shift, seed } = clouds;
  const turn = turned + clouds.angle;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  // Drift goes along the layer, whichever way the clouds lie in it.
  const [ownC, ownS] = [Math.cos(angle), Math.sin(angle)];
  const from: Point = [
    -origin[0] * c - origin[1] * s - (shift[0] * ownC + shift[1] * ownS) * scale,
    -origin[1] * c + origin[0] * s - (shift[1] * ownC - shift[0] * ownS) * scale,
  ];
  const cells = tile > 0 ? Math.max(1, Math.round(tile / size)) : 0;
  const first = (tile > 0 ? tile / cells : size) * scale;
  const octaves: { readonly octave: Octave; readonly share: number }[] = [];
  let whole = 0;
  for (let o = 0, share = 1; o < clouds.octaves; o++, share *= roughness) {
    whole += share;
    const cell = first / 2 ** o;
    // Finer than pixels it would be nothing but specks.
    if (cell < 1 || share === 0) continue;
    const own = { cell, period: cells * 2 ** o, turns: turns * SPEEDS[o % SPEEDS.length]!, seed: hashed(seed * 8 + o) };
    octaves.push({ octave: octaveOf(own, { width, from, turn }), share });
  }
  return { octaves, whole };
};

/** Fills what is there with clouds in colours, as opaque as it is and as the colours are. */
export const clouded = ({ width, height, data }: Pixels, clouds: Clouds, shades: Shades, placed: Placed): void => {
  const { form, contrast, level } = clouds;
  const pixels = wholePixels(data);
  const { octaves, whole } = octavesOf(clouds, width, placed);
  const folded = form !== 'soft';
  const rows = rowsFor(width, shades);
  // From where nothing is to where most is, as 0 to 1.
  const [base, by] = form === 'soft' ? [0.5, 0.5 / whole] : form === 'folded' ? [0, 1 / whole] : [1, -1 / whole];
  const [slope, start] = [255 * by * contrast, 255 * ((base - 0.5) * contrast + 0.5 + level)];
  for (let y = 0; y < height; y++) {
    // Most of what words are clipped from is empty: there no noise is wanted.
    if (!pixels.subarray(y * width, (y + 1) * width).some((pixel) => pixel >>> 24 !== 0)) continue;
    rows.clear(width);
    for (const { octave, share } of octaves) octave.add(y, share, folded, rows);
    rows.shade(pixels, y * width, width, start, slope);
  }
};
