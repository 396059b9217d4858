/** Strokes whose width changes along their length, as outlines to fill. */
import type { Point } from '../../document/types';
import { along, arcLength, stretches } from '../../geometry/length';
import { type Outline, straightThrough } from '../../geometry/outline';

export interface Taper {
  /** The shares of the length over which the width grows at the start and falls at the end, 0..1 each. */
  readonly start: number;
  readonly end: number;
  /** The width at the very ends, as a share of the full width. */
  readonly tip: number;
}

const SAMPLES_PER_PIXEL = 0.5;
/** Along one outline, with all its dashes; each has eight at least. A longer one is sampled less densely. */
const MOST_SAMPLES = 8_000;
const FEWEST_SAMPLES = 8;

const smooth = (t: number) => t * t * (3 - 2 * t);

/** The width at a share of the length, as a share of the full width. */
export const taperedWidth = ({ start, end, tip }: Taper, at: number): number => {
  const rise = start > 0 ? Math.min(1, at / start) : 1;
  const fall = end > 0 ? Math.min(1, (1 - at) / end) : 1;
  return tip + (1 - tip) * smooth(Math.min(rise, fall));
};

/** How often a stretch of an outline is sampled. */
const samplesIn = (outline: Outline, from: number, to: number): number => {
  const density = Math.min(SAMPLES_PER_PIXEL, MOST_SAMPLES / arcLength(outline));
  return Math.max(FEWEST_SAMPLES, Math.ceil((to - from) * density));
};

/** A sample is looked up along its outline and gives a point to each side. */
const PER_SAMPLE = 3;

/** What it takes to make the outlines of tapered strokes, in the unit of room.ts; found without making them. */
export const workOfTaper = (outlines: readonly Outline[], dashes: readonly number[], dashOffset: number): number => {
  let samples = 0;
  for (const outline of outlines) {
    const total = arcLength(outline);
    if (total < 1e-6) continue;
    for (const [from, to] of stretches(total, dashes, dashOffset)) samples += samplesIn(outline, from, to);
  }
  return samples * PER_SAMPLE;
};

const ribbon = (
  outline: Outline,
  from: number,
  to: number,
  halfWidth: (length: number) => number,
  round: boolean,
): Outline => {
  const steps = samplesIn(outline, from, to);
  const left: Point[] = [];
  const right: Point[] = [];
  const cap = (at: number, way: 1 | -1): Point[] => {
    const half = halfWidth(at);
    if (!round || half < 0.05) return [];
    const { x, y, dx, dy } = along(outline, at);
    const heading = Math.atan2(dy * way, dx * way);
    return Array.from({ length: 11 }, (_, i) => {
      const angle = heading - Math.PI / 2 + ((i + 1) / 12) * Math.PI;
      return [x + half * Math.cos(angle), y + half * Math.sin(angle)];
    });
  };
  for (let i = 0; i <= steps; i++) {
    const at = from + ((to - from) * i) / steps;
    const { x, y, dx, dy } = along(outline, at);
    const half = halfWidth(at);
    left.push([x + dy * half, y - dx * half]);
    right.push([x - dy * half, y + dx * half]);
  }
  return straightThrough([...left, ...cap(to, 1), ...right.reverse(), ...cap(from, -1)], true);
};

/** Outlines to be filled by the nonzero rule. */
export const taperedStroke = (
  outlines: readonly Outline[],
  width: number,
  taper: Taper,
  dashes: readonly number[],
  dashOffset: number,
  round: boolean,
): Outline[] =>
  outlines.flatMap((outline) => {
    const total = arcLength(outline);
    if (total < 1e-6) return [];
    const half = (length: number) => (width / 2) * taperedWidth(taper, length / total);
    return stretches(total, dashes, dashOffset).map(([from, to]) => ribbon(outline, from, to, half, round));
  });
