import { number, px, switchParam } from '../../document/params';
import type { Point } from '../../document/types';
import { warpedOutline } from '../../geometry/warpedOutline';
import { noiseOf } from '../noise';
import { shapeStep } from '../shapeStep';
import { short } from '../types';

/** How far apart in the noise versions lie, and shapes that are drawn by themselves. */
const APART = 17.3;

/** The frame's version of `count`, each of which is held for `every` frames; they come round in turn. */
const versionAt = (frame: number, every: number, count: number): number => {
  const turn = Math.floor(frame / Math.max(1, every)) % count;
  return turn < 0 ? turn + count : turn;
};

/**
 * What is above as if it were drawn anew by hand, a few times over: each version a little off, one after another, round and round. The
 * plane is bent by smooth noise, so that lines which meet still meet.
 */
export const wobble = shapeStep({
  kind: 'wobble',
  label: 'Drawn wobble',
  params: {
    size: px('Size', 3, { min: 0, max: 1_000, step: 0.1 }),
    waves: px('Waves', 80, { min: 4, max: 5_000 }),
    versions: number('Versions', 4, { min: 1, max: 100, whole: true }),
    every: number('New every', 3, { unit: 'frames', min: 1, max: 1_000, whole: true }),
    apart: switchParam('Each apart', false),
    seed: number('Seed', 1, { min: 0, max: 100_000 }),
  },
  example: { size: 8 },
  summary: (v) => `${short(v.size)} px, ${short(v.versions)} versions on ${short(v.every)}s`,
  byFrame: ({ size, versions }) => size > 0 && versions > 1,
  each: (outlines, { size, waves, versions, every, apart, seed }, { frame, index }) => {
    if (size === 0) return outlines;
    const noise = noiseOf(seed);
    // Away from the origin, where noise is 0.
    const version = versionAt(frame, Math.round(every), Math.round(versions)) * APART + 5.7;
    const own = apart ? index * APART : 0;
    const to = ([x, y]: Point): Point => [
      x + size * noise(x / waves + own, y / waves + 3.1, version),
      y + size * noise(x / waves + own, y / waves + 203.9, version),
    ];
    return outlines.map((outline) => warpedOutline(outline, to));
  },
});
