import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newScene } from '../document/make';
import type { Item, Point, Property, Value } from '../document/types';
import { cubicAt } from '../geometry/flatten';
import { apply } from '../geometry/matrix';
import { compileScene } from '../scene/compile';
import { seenOtherwise } from '../scene/otherwise';
import { squareFonts } from '../test/fonts';
import { boxOfMarks } from './marks';
import type { FillMark, Mark } from './types';

const SCENE = newScene('s', 'S', { width: 900, height: 400, rate: { num: 25, den: 1 }, length: 99, background: null });
const fill = newItem('f', 'fill');
/** Letters that go on by 50 pixels each, from 10 to 40 of them and 50 high. */
const text = (words: string, values: { [key: string]: Value } = {}) =>
  newItem('t', 'text', { text: words, size: 100, ...values });
const along = (values: { [key: string]: Value }, ...line: readonly Item[]) => [
  { ...newItem('a', 'along', values), children: line.map(({ id }) => id) },
  ...line,
];
const straight = newItem('i', 'line', { from: [0, 0], to: [1_000, 0] });
/** Round the origin, clockwise from its right. */
const R = 200;
const ring = newItem('i', 'ellipse', { width: 2 * R, height: 2 * R });
const slow: Property = {
  keys: [
    { frame: 0, value: 0, ease: { kind: 'linear' } },
    { frame: 10, value: 0.1, ease: { kind: 'linear' } },
  ],
};

const marksOf = (items: readonly Item[], frame = 0) => {
  const layer = newDrawing(SCENE, 'l', 'Words', items, { position: [0, 0] });
  const scene = { ...SCENE, layers: { l: layer }, order: ['l'] };
  return compileScene(scene, { assets: {}, fonts: squareFonts }).marksAt('l', frame) as FillMark[];
};
interface Stand {
  readonly at: Point;
  readonly turn: number;
}
/** The middle of the base of each letter, and how it is turned, in degrees. */
const standing = (items: readonly Item[], frame = 0): Stand[] =>
  marksOf(items, frame).flatMap(({ outlines, matrix }) =>
    outlines.map(({ points: p }) => {
      const [a, b] = [apply(matrix, [p[0]!, p[1]!]), apply(matrix, [p[6]!, p[7]!])];
      return {
        at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2],
        turn: (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI,
      };
    }),
  );
const rounded = (n: number) => Math.round(n * 100) / 100 + 0;
const places = (stands: readonly Stand[]) => stands.map(({ at }) => at.map(rounded));
const turns = (stands: readonly Stand[]) => stands.map(({ turn }) => rounded(turn));
/** Where they stand round the origin: the distance, and the angle clockwise from the right, in degrees. */
const round = (stands: readonly Stand[]) =>
  stands.map(({ at: [x, y] }) => ({ far: Math.hypot(x, y), angle: (Math.atan2(y, x) * 180) / Math.PI }));
const degreesOf = (arc: number, radius = R) => (arc / radius) * (180 / Math.PI);

describe('along a straight line', () => {
  it('letters keep their distances, at its start, its middle and its end', () => {
    const xs = (stands: string) => standing([text('ABC'), fill, ...along({ stands }, straight)]).map(({ at }) => at[0]);
    expect(xs('start').map(rounded)).toEqual([25, 75, 125]);
    expect(xs('middle').map(rounded)).toEqual([450, 500, 550]);
    expect(xs('end').map(rounded)).toEqual([875, 925, 975]);
    // Three shares of a thousand pixels.
    expect(xs('spread').map(rounded)).toEqual([166.67, 500, 833.33]);
  });
  it('they go by their own place neither sideways nor down; lines go on below, and all is moved off together', () => {
    const at = (values: { [key: string]: Value }, own: { [key: string]: Value }) =>
      places(standing([text('A\nB', own), fill, ...along({ stands: 'start', ...values }, straight)]));
    expect(at({}, {})).toEqual([
      [25, 0],
      [25, 120],
    ]);
    expect(at({}, { place: [70, -300] })).toEqual(at({}, {}));
    expect(at({ away: 30 }, {})).toEqual([
      [25, -30],
      [25, 90],
    ]);
  });
  it('by their own place they stand as far along and off as they lie to the right and below', () => {
    const own = { place: [70, -30], align: 'left' } as const;
    const at = standing([text('A', own), fill, ...along({ stands: 'own', shift: 0.1 }, straight)]);
    expect(places(at)).toEqual([[195, -30]]);
  });
  it('beyond its ends they go straight on', () => {
    const short = newItem('i', 'line', { from: [0, 0], to: [60, 80] });
    const stands = standing([text('ABC'), fill, ...along({}, short)]);
    // 50 pixels apart on a line that goes down by 4 for each 3: 30 and 40.
    expect(places(stands)).toEqual([
      [0, 0],
      [30, 40],
      [60, 80],
    ]);
    const far = standing([text('AB'), fill, ...along({ stands: 'start', shift: 5 }, short)]);
    expect(places(far)).toEqual([
      [315, 420],
      [345, 460],
    ]);
    expect(turns(far)).toEqual([53.13, 53.13]);
  });
  it('on its other side they go the other way, and stand on their heads', () => {
    const stands = standing([text('AB'), fill, ...along({ backwards: true, away: 10 }, straight)]);
    expect(places(stands)).toEqual([
      [525, 10],
      [475, 10],
    ]);
    expect(turns(stands).map(Math.abs)).toEqual([180, 180]);
  });
});

describe('along a circle', () => {
  it('letters stand on it by arc length, turned with it', () => {
    const stands = standing([text('ABCD'), fill, ...along({ stands: 'start' }, ring)]);
    const first = round(standing([text('A'), fill, ...along({ stands: 'middle' }, ring)]))[0]!.angle;
    round(stands).forEach(({ far, angle }, i) => {
      expect(far).toBeCloseTo(R, 0);
      const turned = (angle - first - degreesOf(25 + 50 * i) + 720) % 360;
      expect(Math.min(turned, 360 - turned)).toBeLessThan(0.1);
      // A tangent is a quarter turn from its radius.
      expect(Math.abs(((((stands[i]!.turn - angle - 90) % 360) + 540) % 360) - 180)).toBeLessThan(0.2);
    });
  });
  it('spread over it they stand as far from the last to the first as from each other; once round changes nothing', () => {
    const angles = round(standing([text('ABCDE'), fill, ...along({ stands: 'spread' }, ring)])).map((s) => s.angle);
    const gaps = angles.map((angle, i) => (((angles[(i + 1) % 5]! - angle) % 360) + 360) % 360);
    for (const gap of gaps) expect(gap).toBeCloseTo(72, 0);
    const moved = (shift: number) => places(standing([text('AB'), fill, ...along({ shift }, ring)]));
    expect(moved(3)).toEqual(moved(0));
    expect(moved(-2.75)).toEqual(moved(0.25));
  });
  it('spread over it white space at the end stays between the last and the first', () => {
    const angles = round(standing([text('ABCD '), fill, ...along({ stands: 'spread' }, ring)])).map((s) => s.angle);
    expect((((angles[1]! - angles[0]!) % 360) + 360) % 360).toBeCloseTo(72, 0);
    expect((((angles[0]! - angles[3]!) % 360) + 360) % 360).toBeCloseTo(144, 0);
    const xs = standing([text('ABCD  '), fill, ...along({ stands: 'spread' }, straight)]).map(({ at }) =>
      rounded(at[0]),
    );
    expect(xs).toEqual([125, 375, 625, 875]);
  });
  it('off it they stand on a larger one, or upright where they are', () => {
    const stands = standing([text('ABC'), fill, ...along({ away: 40 }, ring)]);
    for (const { far } of round(stands)) expect(far).toBeCloseTo(R + 40, 0);
    const upright = standing([text('ABC'), fill, ...along({ away: 40, lies: 'upright' }, ring)]);
    expect(places(upright)).toEqual(places(stands));
    expect(turns(upright)).toEqual([0, 0, 0]);
    const inner = round(standing([text('ABC'), fill, ...along({ away: 40, backwards: true }, ring)]));
    for (const { far } of inner) expect(far).toBeCloseTo(R - 40, 0);
  });
  it('words and lines stand on it as they are', () => {
    const words = standing([text('AB CD'), fill, ...along({ by: 'words' }, ring)]);
    expect(turns(words)[0]).toBe(turns(words)[1]);
    expect(turns(words)[0]).not.toBe(turns(words)[2]);
    const [a, b] = words as [Stand, Stand];
    expect(Math.hypot(b.at[0] - a.at[0], b.at[1] - a.at[1])).toBeCloseTo(50, 9);
    expect(new Set(turns(standing([text('AB CD'), fill, ...along({ by: 'lines' }, ring)]))).size).toBe(1);
  });
});

describe('bent along a path', () => {
  const bar = newItem('b', 'rectangle', { width: 300, height: 20 });
  /** Points of all outlines, four to a curve. */
  const pointsOf = (marks: readonly FillMark[]): Point[] =>
    marks.flatMap(({ outlines, matrix }) =>
      outlines.flatMap(({ points: p }) =>
        Array.from({ length: ((p.length - 2) / 6) * 4 }, (_, i) =>
          apply(matrix, cubicAt(p, 6 * Math.floor(i / 4), (i % 4) / 4)),
        ),
      ),
    );
  const areaOf = (points: readonly Point[]): number =>
    Math.abs(
      points.reduce((sum, [x, y], i) => {
        const [u, v] = points[(i + 1) % points.length]!;
        return sum + (x * v - u * y) / 2;
      }, 0),
    );

  it('a bar round a circle lies between two others, and covers as much as it did', () => {
    const points = pointsOf(marksOf([bar, fill, ...along({ lies: 'bent' }, ring)]));
    const far = points.map(([x, y]) => Math.hypot(x, y));
    // An ellipse of four cubics is off by up to 0.06 of 200.
    for (const r of far) expect(Math.abs(r - R)).toBeLessThan(10.1);
    expect(Math.max(...far)).toBeCloseTo(R + 10, 0);
    expect(Math.min(...far)).toBeCloseTo(R - 10, 0);
    // Pappus: the way of its middle by its height, less what four chords to a curve cut off.
    expect(areaOf(points) / 6_000).toBeCloseTo(1, 2);
    const angles = points.map(([x, y]) => (Math.atan2(y, x) * 180) / Math.PI);
    expect(Math.max(...angles) - Math.min(...angles)).toBeCloseTo(degreesOf(300), 0);
  });
  it('each letter lies on it with all of its base, off it and on its other side too', () => {
    const bases = (values: { [key: string]: Value }) =>
      marksOf([text('ABC'), fill, ...along({ lies: 'bent', ...values }, ring)]).flatMap(({ outlines, matrix }) =>
        outlines.flatMap(({ points: p }) => [apply(matrix, [p[0]!, p[1]!]), apply(matrix, cubicAt(p, 0, 0.5))]),
      );
    for (const [x, y] of bases({})) expect(Math.hypot(x, y)).toBeCloseTo(R, 0);
    for (const [x, y] of bases({ away: 40 })) expect(Math.hypot(x, y)).toBeCloseTo(R + 40, 0);
    for (const [x, y] of bases({ away: 40, backwards: true })) expect(Math.hypot(x, y)).toBeCloseTo(R - 40, 0);
    const middles = (lies: string) =>
      round(standing([text('ABC'), fill, ...along({ lies }, ring)])).map((s) => s.angle);
    middles('bent').forEach((angle, i) => expect(angle).toBeCloseTo(middles('turned')[i]!, 0));
  });
  it('along a straight line it is what it is turned with it', () => {
    const slanted = newItem('i', 'line', { from: [0, 0], to: [300, 400] });
    const points = (lies: string) => pointsOf(marksOf([text('ABC'), fill, ...along({ lies, away: 5 }, slanted)]));
    const turned = points('turned');
    points('bent').forEach(([x, y], i) => {
      expect(x).toBeCloseTo(turned[i]![0], 6);
      expect(y).toBeCloseTo(turned[i]![1], 6);
    });
  });
  it('before paints and after them it is the same; gradients and pictures are bent in cells', () => {
    const shapes = pointsOf(marksOf([bar, ...along({ lies: 'bent' }, ring), fill]));
    expect(shapes).toEqual(pointsOf(marksOf([bar, fill, ...along({ lies: 'bent' }, ring)])));
    const shaded = { ...fill, params: { ...fill.params, style: { value: 'linear' } } };
    const marks = marksOf([bar, shaded, ...along({ lies: 'bent' }, ring)]) as readonly Mark[];
    const plain = pointsOf(marksOf([bar, fill, ...along({ lies: 'bent' }, ring)]));
    const box = boxOfMarks(marks)!;
    expect(marks.map((mark) => mark.op === 'group' && mark.bend !== undefined)).toEqual([true]);
    // Two pixels about it are bent with it.
    const [xs, ys] = [plain.map(([x]) => x), plain.map(([, y]) => y)];
    expect(Math.abs(box.left - Math.min(...xs))).toBeLessThan(4);
    expect(Math.abs(box.right - Math.max(...xs))).toBeLessThan(4);
    expect(Math.abs(box.top - Math.min(...ys))).toBeLessThan(4);
    expect(Math.abs(box.bottom - Math.max(...ys))).toBeLessThan(4);
  });
});

describe('beside other cards', () => {
  it('letters are moved later one by one, and formulas tell them apart', () => {
    const [card, ...line] = along({ stands: 'start', stagger: 5 }, straight) as [Item, Item];
    const moving = { ...card, params: { ...card.params, shift: slow } };
    const xs = standing([text('ABC'), fill, moving, ...line], 10).map(({ at }) => rounded(at[0]));
    expect(xs).toEqual([125, 125, 125]);
    const formula = { ...card, formulas: { away: { text: '10 * order + count', on: true } } };
    expect(places(standing([text('ABC'), fill, formula, ...line])).map(([, y]) => y)).toEqual([-3, -13, -23]);
  });
  it('the Letters card below turns them about where they have come to stand, and above takes them along', () => {
    const turned = newItem('x', 'letters', { rotation: 30, about: 'base' });
    const plain = standing([text('ABC'), fill, ...along({}, ring)]);
    const stands = standing([text('ABC'), fill, ...along({}, ring), turned]);
    expect(places(stands)).toEqual(places(plain));
    stands.forEach(({ turn }, i) => expect((turn - plain[i]!.turn + 360) % 360).toBeCloseTo(30, 6));
    const lifted = newItem('x', 'letters', { position: [0, -40] });
    const above = round(standing([text('ABC'), fill, lifted, ...along({}, ring)]));
    for (const { far } of above) expect(far).toBeCloseTo(R + 40, 0);
  });
  it('words below turn about the middle of their letters on the line, letters about that of their word on it', () => {
    const about = (by: string, own: string) => {
      const cards = [text('ABC'), fill, ...along({ by }, ring)];
      const half = newItem('x', 'letters', { by: own, scale: [0.5, 0.5], about: 'base' });
      return [standing(cards), standing([...cards, half])] as const;
    };
    const [plain, shrunk] = about('letters', 'words');
    // The middle letter is the middle of the word.
    expect(places(shrunk)[1]).toEqual(places(plain)[1]);
    const [words, each] = about('words', 'letters');
    expect(places(each)).toEqual(places(words));
  });
  it('is laid straight while it is typed, and only it', () => {
    const layer = newDrawing(SCENE, 'l', 'Words', [text('AB'), fill, ...along({}, ring)]);
    const plain = newDrawing(SCENE, 'p', 'Plain', [text('AB'), fill]);
    const scene = { ...SCENE, layers: { l: layer, p: plain }, order: ['l', 'p'] };
    const seen = seenOtherwise(scene, { layers: ['l', 'p'], how: 'straight' });
    const marks = (id: string) => compileScene(seen, { assets: {}, fonts: squareFonts }).marksAt(id, 0);
    expect(marks('l')).toEqual(marks('p'));
    expect([seen.layers.p, seen.order]).toEqual([plain, scene.order]);
    expect(seenOtherwise(scene, { layers: ['p'], how: 'straight' })).toBe(scene);
  });
  it('in a group that is scaled their places and their widths are', () => {
    const group = { ...newItem('g', 'group', { scale: [2, 2] }), children: ['t', 'f'] };
    const [card, ...line] = along({ stands: 'start' }, straight) as [Item, Item];
    const xs = standing([group, text('ABC'), fill, card, ...line]).map(({ at }) => rounded(at[0]));
    expect(xs).toEqual([50, 150, 250]);
  });
  it('without texts each shape stands on the line by its middle, as the copies of a repeater', () => {
    const dot = newItem('d', 'ellipse', { width: 10, height: 10 });
    const copies = newItem('c', 'repeater', { copies: 4, position: [100, 0] });
    for (const cards of [
      [dot, copies, ...along({ stands: 'start' }, ring), fill],
      [dot, fill, copies, ...along({ stands: 'start' }, ring)],
    ]) {
      const boxes = marksOf(cards).flatMap(({ outlines, ...mark }) =>
        outlines.map((o) => boxOfMarks([{ ...mark, outlines: [o] }])!),
      );
      const angles = boxes.map((box) => {
        const [x, y] = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
        expect(Math.hypot(x, y)).toBeCloseTo(R, 0);
        return (Math.atan2(y, x) * 180) / Math.PI;
      });
      expect(angles).toHaveLength(4);
      for (const i of [1, 2, 3]) {
        expect((((angles[i]! - angles[i - 1]!) % 360) + 360) % 360).toBeCloseTo(degreesOf(100), 0);
      }
    }
  });
  it('without a line all stays; what is painted in it lies behind', () => {
    expect(marksOf([text('AB'), fill, ...along({})])).toEqual(marksOf([text('AB'), fill]));
    const point = newItem('i', 'line', { from: [5, 5], to: [5, 5] });
    expect(marksOf([text('AB'), fill, ...along({}, point)])).toEqual(marksOf([text('AB'), fill]));
    const stroke = newItem('o', 'stroke');
    const marks = marksOf([text('AB'), fill, ...along({}, ring, stroke), newItem('x', 'letters')]);
    expect(marks.map(({ op }) => op)).toEqual(['stroke', 'fill', 'fill']);
  });
});
