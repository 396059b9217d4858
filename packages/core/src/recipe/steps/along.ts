import { choice, number, percent, px, switchParam, type Values } from '../../document/params';
import { lastMade } from '../../document/remembered';
import type { Point } from '../../document/types';
import { outlineBox, union } from '../../geometry/bounds';
import { type Along, along as alongOutline, arcLength } from '../../geometry/length';
import { type Matrix, placed } from '../../geometry/matrix';
import type { Outline } from '../../geometry/outline';
import type { Copy } from '../../motion/sampler';
import { flowBent } from '../bent';
import { flowThrough, markBox } from '../marks';
import { workOfCopy } from '../room';
import { partThrough } from '../texts';
import { type Above, type AskedParts, EMPTY, type Flow, type PlacedPart, step } from '../types';
import { each } from './each';

const PARAMS = {
  by: each,
  stands: choice(
    'Stands',
    [
      { value: 'start', label: 'At the start' },
      { value: 'middle', label: 'In the middle' },
      { value: 'end', label: 'At the end' },
      { value: 'spread', label: 'Spread over it' },
      { value: 'own', label: 'By its own place' },
    ],
    'middle',
  ),
  shift: percent('Moved on', 0, { min: -1_000, max: 1_000 }),
  stagger: number('Apart', 0, { unit: 'frames', min: -1_000, max: 1_000, step: 0.1 }),
  away: px('Away', 0, { min: -10_000, max: 10_000, step: 0.5 }),
  lies: choice(
    'Lies',
    [
      { value: 'turned', label: 'Turned with it' },
      { value: 'upright', label: 'Upright' },
      { value: 'bent', label: 'Bent along it' },
    ],
    'turned',
  ),
  backwards: switchParam('Other side', false),
} as const;
export type AlongValues = Values<typeof PARAMS>;
/** What each has at its own time, which is the later the more stand before it. */
export const OF_EACH = ['shift', 'away', 'lies'] as const satisfies readonly (keyof AlongValues)[];

/** About how often as much work it is to bend something as to place it: each piece of an outline is tried at a dozen points. */
const BENDING = 8;

/** What stands on a straight line: the middle of its base, how wide it is, and how wide what is free after it. */
interface Standing {
  readonly base: Point;
  readonly width: number;
  readonly space?: number;
}

/** The point at a length along a line, and the way it runs there: round and round where it is closed, straight on beyond its ends. */
const placeOn = (line: Outline, length: number): Along => {
  const total = arcLength(line);
  if (line.closed) return alongOutline(line, length - Math.floor(length / total) * total);
  const at = alongOutline(line, length);
  const beyond = length - Math.min(Math.max(length, 0), total);
  return { ...at, x: at.x + at.dx * beyond, y: at.y + at.dy * beyond };
};

/** How some things stand along a line before they are moved on: how far along it each is, and what is level with it. */
interface Standings {
  readonly lengthOf: (one: Standing) => number;
  readonly ground: number;
}
const standingsLast = lastMade<readonly Standing[], Standings>();
export const standingsOn = (line: Outline, all: readonly Standing[], stands: AlongValues['stands']): Standings =>
  standingsLast(all, [line, stands], () => {
    if (stands === 'own') return { lengthOf: ({ base }) => base[0], ground: 0 };
    const total = arcLength(line);
    const left = all.reduce((least, { base, width }) => Math.min(least, base[0] - width / 2), Infinity);
    // Spread round a closed line its end meets its start: white space that was typed there stays.
    const round = stands === 'spread' && line.closed ? 1 : 0;
    const end = ({ base, width, space = 0 }: Standing) => base[0] + width / 2 + space * round;
    const reach = all.reduce((most, one) => Math.max(most, end(one)), -Infinity) - left;
    const stretch = stands === 'spread' && reach > 0 ? total / reach : 1;
    // A closed line begins and ends at one point, which is where things stand by their start, their middle or their end.
    const spare = (line.closed ? 0 : total) - reach;
    const start = { start: 0, spread: 0, middle: spare / 2, end: spare }[stands];
    return { lengthOf: ({ base }) => start + (base[0] - left) * stretch, ground: all[0]?.base[1] ?? 0 };
  });

/** From the straight line that some things stand on to a curved one, for one of them with the values that it has itself. */
interface Laid {
  /** Where a point of it goes where it is bent along the line, each upright through it staying straight. */
  readonly bent: (at: Point) => Point;
  /** Where all of it goes as it is. */
  readonly whole: Matrix;
}
const layingOn = (
  line: Outline,
  all: readonly Standing[],
  { stands, backwards }: AlongValues,
): ((one: Standing, own: AlongValues) => Laid) => {
  const { lengthOf, ground } = standingsOn(line, all, stands);
  const total = arcLength(line);
  const way = backwards ? -1 : 1;
  return (one, { shift, away, lies }) => {
    const start = lengthOf(one) + shift * total;
    const stood = ([px, py]: Point) => {
      const length = start + px - one.base[0];
      const off = py - ground - away;
      const { x, y, dx, dy } = placeOn(line, backwards ? total - length : length);
      return { at: [x - way * dy * off, y + way * dx * off] as const, turn: Math.atan2(way * dy, way * dx) };
    };
    const { at, turn } = stood(one.base);
    const rotation = lies === 'upright' ? 0 : (turn * 180) / Math.PI;
    return {
      bent: (point) => stood(point).at,
      whole: placed({ position: at, pivot: one.base, rotation, scale: [1, 1] }),
    };
  };
};

/** What things are laid along: the first outline that has any length. */
export const lineOf = ({ shapes }: Flow): Outline | undefined =>
  shapes.flatMap(({ outlines }) => outlines).find((outline) => arcLength(outline) > 1e-6);

/** Something that is laid along a line. */
interface Piece extends Standing {
  readonly copy: Copy;
  readonly flow: (copy: Copy) => Flow;
}

/** Those of the texts above that are asked for. */
const textPieces = (above: Above, { all, asked }: AskedParts): readonly Piece[] =>
  asked.map(({ order, part }) => {
    const { base, width, text } = all[order]!;
    const copy = { order, count: all.length, part, letter: text };
    return { base, width, copy, flow: (one) => above.at(above.frame, one) };
  });

/** Each shape and each mark by its middle. */
const otherPieces = ({ shapes, marks }: Flow): readonly Piece[] => {
  const seen = shapes.filter((shape) => shape.outlines.length > 0);
  const boxed = [
    ...seen.map((shape) => ({
      box: shape.outlines.map(outlineBox).reduce(union, null),
      flow: { shapes: [shape], marks: [] },
    })),
    ...marks.map((mark) => ({ box: markBox(mark, false), flow: { shapes: [], marks: [mark] } })),
  ];
  return boxed.map(({ box, flow }, order) => ({
    base: box ? [(box.left + box.right) / 2, (box.top + box.bottom) / 2] : [0, 0],
    width: box ? box.right - box.left : 0,
    copy: { order, count: boxed.length },
    flow: () => flow,
  }));
};

/**
 * Lays what stands above along the first outline of its own cards: each letter, word or line of texts, and where there are none
 * each shape, as it is or bent along it. How far something stands to the right becomes how far it stands along the outline, in arc
 * length, and how far below the first of them, how far off it. What its own cards paint is drawn behind. Without an outline all stays
 * as it is.
 */
export const along = step({
  kind: 'along',
  label: 'Along a path',
  params: PARAMS,
  summary: (v) => PARAMS.stands.choices.find(({ value }) => value === v.stands)!.label.toLowerCase(),
  copies: true,
  onDrawn: true,
  holds: true,
  // An arch over the lower edge of what is above.
  holding: ({ left, right, bottom }) => {
    const [third, up] = [(right - left) / 3, (left - right) / 5];
    return {
      kind: 'path',
      values: {
        path: {
          closed: false,
          vertices: [
            [left, bottom, 0, 0, third, up],
            [right, bottom, -third, up, 0, 0],
          ],
        },
      },
    };
  },
  texts: ({ frame, texts, own }, v, at, by) => {
    const line = lineOf(own);
    const units = texts(v.by);
    const parts = by === v.by ? units : texts(by);
    if (!line || units.length === 0) return parts;
    const lay = layingOn(line, units, v);
    return parts.map((one, i) => {
      const holds = (u: PlacedPart) => u.part.card === one.part.card && u.from <= one.from && u.to > one.from;
      const order = parts === units ? i : Math.max(0, units.findIndex(holds));
      const unit = units[order]!;
      const moved = at(frame - order * v.stagger, { order, count: units.length, part: one.part });
      // What holds several of them goes where its own middle comes to lie.
      return partThrough(lay(unit.to >= one.to ? unit : one, moved).whole, one);
    });
  },
  apply: (above, v, at): Flow => {
    const line = lineOf(above.own);
    if (!line) return above.at(above.frame);
    const isWhole = above.part === undefined || above.part === 'rest';
    const texts = above.texts(v.by);
    const count = texts.all.length;
    const rest = isWhole && count > 0 ? above.at(above.frame, { order: 0, count, part: 'rest' }) : EMPTY;
    const pieces = count > 0 ? textPieces(above, texts) : otherPieces(above.at(above.frame));
    const lay = layingOn(line, count > 0 ? texts.all : pieces, v);
    const shapes = [...rest.shapes];
    const marks = [...(isWhole ? above.own.marks : []), ...rest.marks];
    for (const piece of pieces) {
      const { copy } = piece;
      const flow = piece.flow(copy);
      const own = at(above.frame - copy.order * v.stagger, copy);
      const isBent = own.lies === 'bent';
      if (!above.take(1 + flow.shapes.length + flow.marks.length, workOfCopy(flow) * (isBent ? BENDING : 1))) break;
      const { bent, whole } = lay(piece, own);
      const moved = isBent ? flowBent(bent, flow) : flowThrough(whole, flow);
      shapes.push(...moved.shapes);
      marks.push(...moved.marks);
    }
    return { shapes, marks };
  },
});
