import { choice, degrees, number, percent, px, switchParam } from '../../document/params';
import type { Point } from '../../document/types';
import { type Box, boxOutline, grown } from '../../geometry/bounds';
import { translation } from '../../geometry/matrix';
import { type Outline, polygon } from '../../geometry/outline';
import { areaOf, combined, outlinesOf } from '../../geometry/polygons';
import { areaCut, boxOfMarks, grouped, markThrough } from '../marks';
import { wedgeOutlines } from '../sources/wedge';
import { cover, type Mark, shortPercent } from '../types';

interface Sweep {
  readonly middle: Point;
  /** How far the picture reaches from its middle along the way, across it, and at all. */
  readonly along: number;
  readonly across: number;
  readonly reach: number;
  /** Of the way, in radians. */
  readonly angle: number;
  /** How far the edge fades beyond itself. */
  readonly soft: number;
}

const sweepOver = ({ left, top, right, bottom }: Box, degreesOfWay: number, soft: number): Sweep => {
  const [w, h] = [(right - left) / 2, (bottom - top) / 2];
  const angle = (degreesOfWay * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  return {
    middle: [(left + right) / 2, (top + bottom) / 2],
    along: w * c + h * s,
    across: w * s + h * c,
    reach: Math.hypot(w, h),
    angle,
    soft: soft * 1.5,
  };
};

/** A band across the way, from one place along it to another. */
const band = ({ middle: [x, y], across, angle, soft }: Sweep, from: number, to: number): Outline => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const far = across + soft + 1;
  const at = (along: number, side: number): Point => [x + along * c - side * s, y + along * s + side * c];
  return polygon([at(from, -far), at(to, -far), at(to, far), at(from, far)]);
};

const disc = ({ middle, angle }: Sweep, radius: number, share: number): readonly Outline[] => {
  const start = (angle * 180) / Math.PI;
  return wedgeOutlines({ measure: 'share', share, start, end: 0, radius, inner: 0, centre: middle });
};

/** As much of areas as lies in a box: edges that go on far beyond it are drawn otherwise from one machine to the next. */
const within = (box: Box, outlines: readonly Outline[]): readonly Outline[] =>
  outlinesOf(combined('intersect', [areaOf(outlines), areaOf([boxOutline(box)])]));

const STYLES = {
  straight: (sweep: Sweep, shown: number) => {
    const whole = sweep.along + sweep.soft;
    return [band(sweep, -whole - sweep.soft - 1, -whole + 2 * whole * shown)];
  },
  round: (sweep: Sweep, shown: number) => disc(sweep, (sweep.reach + sweep.soft) * shown, 1),
  clock: (sweep: Sweep, shown: number) => disc(sweep, 2 * (sweep.reach + sweep.soft), shown),
  blinds: (sweep: Sweep, shown: number, count: number) => {
    const width = (2 * sweep.along) / count;
    return Array.from({ length: count }, (_, i) => {
      const from = -sweep.along + i * width;
      return band(sweep, from, from + width * shown);
    });
  },
};

/** Marks that have gone so much of the way out of their box, as far as they are in it: before nothing they are still to come. */
const slid = (marks: readonly Mark[], box: Box, { along, angle }: Sweep, share: number): Mark => {
  const far = 2 * along * share;
  const way = translation(far * Math.cos(angle), far * Math.sin(angle));
  return grouped(
    marks.map((mark) => markThrough(way, mark)),
    { cuts: [areaCut([boxOutline(box)])] },
  );
};

/**
 * Shows more and more of what is above it, or less: along a way, from its middle, round it, as blinds open, or as it slides out from
 * behind its edge.
 */
export const wipe = cover({
  kind: 'wipe',
  label: 'Wipe',
  params: {
    style: choice(
      'Wipe',
      [
        { value: 'straight', label: 'Straight' },
        { value: 'round', label: 'Round' },
        { value: 'clock', label: 'By clock' },
        { value: 'blinds', label: 'Blinds' },
        { value: 'slide', label: 'Slide' },
      ],
      'straight',
    ),
    shown: percent('Shown', 0.5),
    angle: degrees('Way', 0, { when: ['style', 'straight', 'clock', 'blinds', 'slide'] }),
    blinds: number('Blinds', 8, { min: 1, max: 200, whole: true, when: ['style', 'blinds'] }),
    soft: px('Soft edge', 0, {
      min: 0,
      max: 1_000,
      step: 0.5,
      when: ['style', 'straight', 'round', 'clock', 'blinds'],
    }),
    hides: switchParam('Hides instead', false),
  },
  summary: (v) => `${shortPercent(v.shown)} ${v.hides ? 'hidden' : 'shown'}`,
  cover: (marks, { style, shown, angle, blinds, soft, hides }) => {
    if (shown <= 0 || shown >= 1) return shown <= 0 === hides ? marks : [];
    const box = boxOfMarks(marks);
    if (!box) return marks;
    const sweep = sweepOver(box, angle, soft);
    if (style === 'slide') return [slid(marks, box, sweep, hides ? shown : shown - 1)];
    const outlines = within(grown(box, sweep.soft + 1), STYLES[style](sweep, shown, Math.max(1, Math.round(blinds))));
    return [grouped(marks, { cuts: [areaCut(outlines, { inverted: hides, feather: soft })] })];
  },
});
