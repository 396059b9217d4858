import { lastMade } from '../../document/remembered';
import { choice, color, degrees, percent, point, px, switchParam } from '../../document/params';
import { boxOutline, grown } from '../../geometry/bounds';
import { type Matrix, multiply, placed, translation } from '../../geometry/matrix';
import type { Outline } from '../../geometry/outline';
import { turnsOf } from '../../motion/stagger';
import { blurBy } from '../covers/blur';
import { changedBy } from '../covers/effect';
import { floodBy } from '../covers/flood';
import { framesApart, order, seed } from '../inTurn';
import { areaCut, faded, grouped, markThrough, shapeThrough } from '../marks';
import { workOfCopy } from '../room';
import { type Effect, EMPTY, type Flow, type Mark, type PlacedPart, short, step } from '../types';
import { each } from './each';

const turnsLast = lastMade<readonly PlacedPart[], readonly number[]>();

/** Marks with an effect, where there is one. */
const withEffect = (marks: readonly Mark[], by: Effect | null): readonly Mark[] =>
  by && marks.length > 0 ? [changedBy(by, marks)] : marks;

/** Edges of the place of a part, and the way that it goes beyond them. */
const EDGES = { bottom: [0, 1], top: [0, -1], left: [-1, 0], right: [1, 0] } as const;

/** How far a part goes to be gone behind an edge by a share, and what is before that edge, as far as the part may reach. */
const behindEdge = (
  { base: [x, y], width, rise, fall }: PlacedPart,
  edge: keyof typeof EDGES,
  share: number,
): { readonly way: Matrix; readonly before: Outline } => {
  const [dx, dy] = EDGES[edge];
  const place = { left: x - width / 2, top: y - rise, right: x + width / 2, bottom: y + fall };
  const far = 2 * (width + rise + fall);
  return {
    way: translation(dx * share * width, dy * share * (rise + fall)),
    before: boxOutline({ ...grown(place, far), [edge]: place[edge] }),
  };
};

/**
 * Gives each letter, word or line of the texts above a place, a size, a turn, an opacity, a colour and a blur of its own. Their
 * keyframes are those of the first; each other plays them so many frames later as its turn is. What is drawn of a part may go behind
 * an edge of its place, so far as its font is high or as it is wide. Formulas know the part as `order` and `count`.
 */
export const letters = step({
  kind: 'letters',
  label: 'Letters',
  params: {
    by: each,
    stagger: framesApart(2),
    order,
    seed,
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
    behind: percent('Behind', 0),
    edge: choice(
      'Its edge',
      [
        { value: 'bottom', label: 'Below' },
        { value: 'top', label: 'Above' },
        { value: 'left', label: 'Left' },
        { value: 'right', label: 'Right' },
      ],
      'bottom',
    ),
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
      if (v.opacity <= 0 || v.behind >= 1) continue;
      const hiding = v.behind > 0 ? behindEdge(all[i]!, v.edge, v.behind) : null;
      const own = placed({
        position: [pivot[0] + v.position[0], pivot[1] + v.position[1]],
        pivot,
        rotation: v.rotation,
        scale: v.scale,
      });
      const m = hiding ? multiply(hiding.way, own) : own;
      shapes.push(...flow.shapes.map((shape) => shapeThrough(m, shape, v.opacity)));
      const moved = flow.marks.map((mark) => markThrough(m, mark));
      const colored = withEffect(moved, v.tint > 0 ? floodBy(v.color, v.tint) : null);
      const soft = withEffect(colored, blurBy(v.blur));
      const seen = hiding && soft.length > 0 ? [grouped(soft, { cuts: [areaCut([hiding.before])] })] : soft;
      marks.push(...faded(seen, v.opacity));
    }
    return { shapes, marks };
  },
});
