import { growth, percent, px, switchParam } from '../../document/params';
import { lastMade } from '../../document/remembered';
import { IDENTITY } from '../../geometry/matrix';
import { faded, grouped } from '../marks';
import { cover, type Cut, type Growth, type Mark, shortPercent } from '../types';

const growthsOf = lastMade<readonly Mark[], Growth>();

/** Shows what is above as something grows through it: from its roots along its branches, or along strokes drawn by hand. */
export const grow = cover({
  kind: 'grow',
  label: 'Grow',
  params: {
    shown: percent('Grown', 0.5),
    from: growth('From'),
    soft: px('Soft edge', 4, { min: 0, max: 1_000, step: 0.5 }),
    tip: px('Round tip', 0, { min: 0, max: 1_000, step: 0.5, hint: 'its radius' }),
    gap: px('Gaps', 2, { min: 0, max: 200, step: 0.5, hint: 'up to as wide are jumped' }),
    rest: percent('Rest', 0, { hint: 'how strongly it shows before it has grown' }),
    backwards: switchParam('Tips first', false),
  },
  summary: (v) => `${shortPercent(v.shown)} grown`,
  cover: (marks, { shown, from: value, soft, tip, gap, rest, backwards }) => {
    if (shown >= 1 || rest >= 1) return marks;
    if (shown <= 0) return faded(marks, rest);
    const growing = { value, tip, gap, backwards };
    const growth = growthsOf(marks, Object.values(growing), () => ({ ...growing, through: marks }));
    const place = { growth, shown, soft, matrix: IDENTITY };
    // What is left of the rest is all but a share of it.
    const how: Pick<Cut, 'mode' | 'inverted' | 'strength'> =
      rest > 0 ? { mode: 'hide', inverted: true, strength: 1 - rest } : { mode: 'show', inverted: false, strength: 1 };
    return [grouped(marks, { cuts: [{ ...place, ...how }] })];
  },
});
