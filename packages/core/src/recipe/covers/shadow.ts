import { color, degrees, percent, px, switchParam } from '../../document/params';
import type { Color } from '../../document/types';
import { translation } from '../../geometry/matrix';
import { firmer as firmerPixels } from '../../picture/pixels';
import { deviationOf, grouped, markThrough } from '../marks';
import { cover, type Effect, type Mark, short } from '../types';
import { blurBy } from './blur';
import { changedBy } from './effect';
import { floodBy } from './flood';

/** Alpha so many times as strong. */
const firmBy = (times: number): Effect => ({
  reach: 0,
  pixels: (data) => firmerPixels(data, times),
  svg: () => `<feComponentTransfer><feFuncA type="linear" slope="${times}"/></feComponentTransfer>`,
});

/** Soft edges, of which a `spread` of 1 leaves what fades outwards alone: all up to the edge is as strong as the rest. */
export const firmer = (soft: readonly [Mark], spread: number): Mark =>
  // An edge is half there.
  spread > 0 ? changedBy(firmBy(1 / (1 - spread / 2)), soft) : soft[0];

/**
 * What marks show, in one colour and with soft edges: these fade over `softness` pixels to each side, and with a
 * `spread` of 1 only outwards: all up to the edge is as strong as the rest.
 */
export const silhouette = (
  marks: readonly Mark[],
  { over, softness, spread, strength }: { over: Color; softness: number; spread: number; strength: number },
): Mark => {
  const flat = changedBy(floodBy(over, 1), marks);
  const by = blurBy(deviationOf(softness));
  const soft = by ? changedBy(by, [flat]) : flat;
  return grouped([firmer([soft], spread)], { alpha: strength });
};

/** Beside what a layer is handled by. */
export const aside = (mark: Mark): Mark => grouped([mark], { aside: true });

/** What is above it once more, behind it: in one colour, moved and softened. */
export const shadow = cover({
  kind: 'shadow',
  label: 'Shadow',
  again: true,
  params: {
    direction: degrees('Direction', 45),
    distance: px('Distance', 12, { min: 0, max: 5_000 }),
    softness: px('Softness', 12, { min: 0, max: 1_000 }),
    spread: percent('Spread', 0),
    color: color('Colour', '#000000'),
    strength: percent('Strength', 0.5),
    alone: switchParam('Alone', false),
  },
  summary: (v) => `${short(v.distance)} px, softness ${short(v.softness)} px`,
  cover: (marks, { direction, distance, softness, spread, color: over, strength, alone }) => {
    const angle = (direction * Math.PI) / 180;
    const moved = translation(distance * Math.cos(angle), distance * Math.sin(angle));
    const behind = markThrough(moved, silhouette(marks, { over, softness, spread, strength }));
    return alone ? [behind] : [aside(behind), ...marks];
  },
});
