import { lastMade } from '../../document/remembered';
import { choice, color, degrees, number, percent, point, px, switchParam } from '../../document/params';
import { placed } from '../../geometry/matrix';
import { turnsOf } from '../../motion/stagger';
import { blurBy } from '../covers/blur';
import { changedBy } from '../covers/effect';
import { floodBy } from '../covers/flood';
import { faded, markThrough, shapeThrough } from '../marks';
import { workOfCopy } from '../room';
import { type Effect, EMPTY, type Flow, type Mark, type PlacedPart, short, step } from '../types';
import { each } from './each';

const turnsLast = lastMade<readonly PlacedPart[], readonly number[]>();

/** Marks with an effect, where there is one. */
const withEffect = (marks: readonly Mark[], by: Effect | null): readonly Mark[] =>
  by && marks.length > 0 ? [changedBy(by, marks)] : marks;

/**
 * Gives each letter, word or line of the texts above a place, a size, a turn, an opacity, a colour and a blur of its own. Their
 * keyframes are those of the first; each other plays them so many frames later as its turn is. Formulas know the part as `order`
 * and `count`.
 */
export const letters = step({
  kind: 'letters',
  label: 'Letters',
  params: {
    by: each,
    stagger: number('Apart', 2, { unit: 'frames', min: -1_000, max: 1_000, step: 0.1 }),
    order: choice(
      'Order',
      [
        { value: 'list', label: 'Forward' },
        { value: 'reversed', label: 'Backward' },
        { value: 'centre', label: 'From the middle' },
        { value: 'edges', label: 'From the ends' },
        { value: 'random', label: 'At random' },
      ],
      'list',
    ),
    seed: number('Seed', 1, { min: 0, max: 100_000, whole: true, when: ['order', 'random'] }),
    above: switchParam('Play later', false),
    position: point('Move', [0, 0]),
    scale: point('Scale', [1, 1], { unit: 'percent', limit: 100, step: 0.01 }),
    rotation: degrees('Turn', 0),
    about: choice(
      'About',
      [
        { value: 'middle', label: 'Its middle' },
        { value: 'base', label: 'Its base line' },
        { value: 'word', label: 'Its word' },
      ],
      'middle',
    ),
    opacity: percent('Opacity', 1),
    tint: percent('Coloured', 0),
    color: color('Colour', '#FFB23E'),
    blur: px('Blur', 0, { min: 0, max: 500 }),
  },
  summary: (v) => `each ${v.by.slice(0, -1)}, ${short(v.stagger)} frames apart`,
  copies: true,
  onDrawn: true,
  apply: (above, { by, order, seed }, at): Flow => {
    const { all, asked } = above.texts(by);
    const count = all.length;
    if (count === 0) return above.at(above.frame);
    const turns = turnsLast(all, [order, seed], () =>
      turnsOf(
        all.map(({ middle }) => middle),
        order,
        seed,
      ),
    );
    const isWhole = above.part === undefined || above.part === 'rest';
    const rest = isWhole ? above.at(above.frame, { order: 0, count, part: 'rest' }) : EMPTY;
    const shapes = [...rest.shapes];
    const marks = [...rest.marks];
    for (const { order: i, part } of asked) {
      const { text, ...pivots } = all[i]!;
      const copy = { order: i, count, part, letter: text };
      const later = turns[i]! * at(above.frame, copy).stagger;
      const v = at(above.frame - later, copy);
      const flow = above.at(v.above ? above.frame - later : above.frame, copy);
      if (!above.take(1 + flow.shapes.length + flow.marks.length, workOfCopy(flow))) break;
      const pivot = pivots[v.about];
      const m = placed({
        position: [pivot[0] + v.position[0], pivot[1] + v.position[1]],
        pivot,
        rotation: v.rotation,
        scale: v.scale,
      });
      if (v.opacity <= 0) continue;
      shapes.push(...flow.shapes.map((shape) => shapeThrough(m, shape, v.opacity)));
      const moved = flow.marks.map((mark) => markThrough(m, mark));
      const colored = withEffect(moved, v.tint > 0 ? floodBy(v.color, v.tint) : null);
      marks.push(...faded(withEffect(colored, blurBy(v.blur)), v.opacity));
    }
    return { shapes, marks };
  },
});
