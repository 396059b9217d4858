import { describe, expect, it } from 'vitest';
import { newItem } from '../document/make';
import type { Item, Point, Value } from '../document/types';
import { outlineBox } from '../geometry/bounds';
import { flattened } from '../geometry/flatten';
import { along, arcLength } from '../geometry/length';
import { type Outline, straightThrough } from '../geometry/outline';
import { bareSupplies, compileRecipe } from './evaluate';
import { IDENTITY } from '../geometry/matrix';
import { NO_FONTS } from '../type/types';
import { newRoom } from './room';
import { round } from './steps/round';
import { area } from '../test/areas';
import { EMPTY, type FillMark } from './types';

let count = 0;
const card = (kind: string, values: { [key: string]: Value } = {}): Item => newItem(`c${count++}`, kind, values);
const compiled = (cards: readonly Item[]) =>
  compileRecipe(
    cards.map((c) => c.id),
    Object.fromEntries(cards.map((c) => [c.id, c])),
    bareSupplies(),
  );
const flow = (cards: readonly Item[], frame = 0) => compiled(cards).at(frame, newRoom());
const outlines = (cards: readonly Item[], frame = 0): Outline[] => flow(cards, frame).shapes.flatMap((s) => s.outlines);

const square = (side: number, centre: [number, number] = [0, 0]) =>
  card('rectangle', { width: side, height: side, centre });
const disc = (radius: number, centre: [number, number] = [0, 0]) =>
  card('ellipse', { width: 2 * radius, height: 2 * radius, centre });
/** The lens that two discs of radius r share, their centres d apart. */
const lens = (r: number, d: number) => 2 * r * r * Math.acos(d / (2 * r)) - (d / 2) * Math.sqrt(4 * r * r - d * d);

describe('a wedge', () => {
  it('of 35 % ends at 126° clockwise from the top, and has 35 % of the disc’s area', () => {
    const [o] = outlines([card('wedge', { share: 0.35, radius: 200 })]) as [Outline];
    expect(Math.abs(area([o]) / (0.35 * Math.PI * 200 ** 2) - 1)).toBeLessThan(1e-4);
    const end = along(o, arcLength(o) - 200);
    expect([end.x, end.y]).toEqual([
      expect.closeTo(200 * Math.sin((126 * Math.PI) / 180), 3),
      expect.closeTo(-200 * Math.cos((126 * Math.PI) / 180), 3),
    ]);
  });
  it.each([
    [0.25, 60],
    [1, 60],
    [-0.6, 150],
  ])('as a ring: a share of %f with a hole of %f', (share, inner) => {
    const made = outlines([card('wedge', { share, radius: 200, inner })]);
    expect(area(made) / (Math.abs(share) * Math.PI * (200 ** 2 - inner ** 2))).toBeCloseTo(1, 4);
  });
  it('between angles goes from the one to the other, at most once round', () => {
    const part = (start: number, end: number) =>
      area(outlines([card('wedge', { measure: 'angles', start, end, radius: 100 })])) / (Math.PI * 1e4);
    expect([part(30, 120), part(350, 370), part(0, 900)]).toEqual([
      expect.closeTo(0.25, 4),
      expect.closeTo(20 / 360, 4),
      expect.closeTo(1, 4),
    ]);
  });
  it('of nothing draws nothing', () => {
    expect(outlines([card('wedge', { share: 0 })])).toEqual([]);
  });
});

describe('combine', () => {
  const two = () => [disc(100, [-50, 0]), disc(100, [50, 0])];
  const one = Math.PI * 1e4;
  it.each([
    ['union', 2 * one - lens(100, 100)],
    ['intersect', lens(100, 100)],
    ['subtract', one - lens(100, 100)],
    ['exclude', 2 * one - 2 * lens(100, 100)],
  ])('%s of two discs has the area known for it', (operation, wanted) => {
    const made = area(outlines([...two(), card('combine', { operation })]));
    expect(Math.abs(made / wanted - 1)).toBeLessThan(5e-4);
  });
  it('subtracts every later shape from the first', () => {
    const cards = [square(100), square(20, [-25, 0]), square(20, [25, 0]), card('combine', { operation: 'subtract' })];
    expect(area(outlines(cards))).toBeCloseTo(10_000 - 800, 6);
    expect(outlines(cards)).toHaveLength(3);
  });
  it('takes a ring for one shape with a hole', () => {
    const ring = card('wedge', { share: 1, radius: 100, inner: 50 });
    const made = outlines([square(400), ring, card('combine', { operation: 'subtract' })]);
    expect(area(made) / (160_000 - Math.PI * 7_500)).toBeCloseTo(1, 4);
  });
  it('of what does not meet leaves nothing', () => {
    expect(outlines([square(10), square(10, [100, 0]), card('combine', { operation: 'intersect' })])).toEqual([]);
  });
});

describe('round corners', () => {
  it('takes an outline of very many corners', () => {
    const teeth = Array.from({ length: 100_000 }, (_, i): Point => [i * 2, i % 2 === 0 ? 0 : 4]);
    const above = { shapes: [{ outlines: [straightThrough(teeth, false)], alpha: 1 }], marks: [] };
    const yes = () => true;
    const { shapes } = round.apply(
      {
        frame: 0,
        fonts: NO_FONTS,
        at: () => above,
        since: () => IDENTITY,
        texts: () => ({ all: [], asked: [] }),
        own: EMPTY,
        take: yes,
        takeAreas: yes,
      },
      { radius: 0.3 },
      () => ({ radius: 0.3 }),
    );
    // Each corner but the two ends has become an arc between two straight sides.
    expect(shapes[0]!.outlines[0]!.points.length).toBe(2 + 6 * (99_999 + 99_998));
  });

  it('takes (4 − π) r² from a square', () => {
    expect(area(outlines([square(200), card('round', { radius: 30 })])) / (40_000 - (4 - Math.PI) * 900)).toBeCloseTo(
      1,
      4,
    );
  });
  it('makes a disc of a square whose radius is half its side, and goes no further', () => {
    for (const radius of [100, 400]) {
      const [o] = outlines([square(200), card('round', { radius })]) as [Outline];
      expect(arcLength(o)).toBeCloseTo(Math.PI * 200, 0);
    }
  });
  it('leaves the ends of an open line and a smooth outline as they are', () => {
    const [line] = outlines([card('line', { from: [0, 0], to: [100, 0] }), card('round')]) as [Outline];
    expect(arcLength(line)).toBe(100);
    expect(area(outlines([disc(100), card('round', { radius: 20 })]))).toBeCloseTo(area(outlines([disc(100)])), 6);
  });
});

describe('offset', () => {
  it.each([
    ['miter', 120 ** 2],
    ['round', 100 ** 2 + 4 * 100 * 10 + Math.PI * 100],
    ['bevel', 100 ** 2 + 4 * 100 * 10 + 4 * 0.5 * 10 * 10],
  ])('of a square outward with %s joins', (join, wanted) => {
    const made = area(outlines([square(100), card('offset', { amount: 10, join })]));
    expect(Math.abs(made / wanted - 1)).toBeLessThan(1e-3);
  });
  it('inward shrinks, to nothing where nothing is left, and a hole grows', () => {
    expect(area(outlines([square(100), card('offset', { amount: -10 })]))).toBeCloseTo(6_400, 6);
    expect(outlines([square(100), card('offset', { amount: -50 })])).toEqual([]);
    const ring = [card('wedge', { share: 1, radius: 100, inner: 50 }), card('offset', { amount: -10, join: 'round' })];
    expect(area(outlines(ring)) / (Math.PI * (90 ** 2 - 60 ** 2))).toBeCloseTo(1, 3);
  });
  it('makes a ribbon of an open line', () => {
    expect(area(outlines([card('line', { from: [0, 0], to: [100, 0] }), card('offset', { amount: 5 })]))).toBeCloseTo(
      1_000,
      6,
    );
  });
});

describe('pinch', () => {
  it('draws the corners of a square inward into a star of known area', () => {
    // Corners at (±50, ±50) halve their way to the middle, the sides' middles stay at 100: 8 triangles.
    const made = outlines([square(200), card('pinch', { amount: -1 / 2 })]);
    expect(area(made)).toBeCloseTo(8 * 0.5 * Math.abs(100 * 50 - 0 * 50), 6);
  });
  it('puffs the sides up and keeps the corners', () => {
    const [o] = outlines([square(200), card('pinch', { amount: 0.5 })]) as [Outline];
    expect([o.points[0], o.points[1]]).toEqual([-100, -100]);
    // A cubic whose handles stand at 150 reaches 3/4 of the 50 they are above its ends.
    expect(outlineBox(o).top).toBeCloseTo(-137.5, 6);
  });
});

describe('roughen', () => {
  const rough = (values: { [key: string]: Value }, frame = 0) =>
    Array.from(outlines([disc(100), card('roughen', values)], frame)[0]!.points);
  it('is the same for a seed on every run, and another for another', () => {
    expect(rough({ seed: 4 })).toEqual(rough({ seed: 4 }));
    expect(rough({ seed: 4 })).not.toEqual(rough({ seed: 5 }));
  });
  it('keeps its points within its size of the outline', () => {
    const p = rough({ size: 10, points: 'corner', spacing: 7 });
    for (let k = 0; k < p.length; k += 6)
      expect(Math.abs(Math.hypot(p[k]!, p[k + 1]!) - 100)).toBeLessThan(10 * Math.SQRT2 + 0.03);
  });
  it('stands still unless it is told to change', () => {
    expect(rough({}, 30)).toEqual(rough({}, 0));
    expect(rough({ change: 10 }, 30)).not.toEqual(rough({ change: 10 }, 0));
    // Compiled once, too, and on what stands still.
    const at = compiled([disc(100), card('roughen', { change: 10 })]).at;
    expect(at(30, newRoom()).shapes).not.toEqual(at(0, newRoom()).shapes);
  });
});

describe('a drawn wobble', () => {
  const drawn = (values: { [key: string]: Value }) => {
    const { at } = compiled([disc(100), card('wobble', values)]);
    return (frame: number) => Array.from(at(frame, newRoom()).shapes[0]!.outlines[0]!.points);
  };
  it('has so many versions, each held, which come round and round', () => {
    const at = drawn({ versions: 3, every: 4 });
    const versions = [0, 4, 8].map(at);
    expect(new Set(versions.map((v) => v.join())).size).toBe(3);
    for (let frame = 0; frame < 40; frame++) expect(at(frame)).toEqual(versions[Math.floor(frame / 4) % 3]);
    expect(at(-1)).toEqual(versions[2]);
    expect(drawn({ versions: 1 })(50)).toEqual(drawn({ versions: 1 })(0));
  });
  it('goes no farther than its size from the outline, and stays closed', () => {
    const { at } = compiled([disc(100), card('wobble', { size: 6 })]);
    const [outline] = at(0, newRoom()).shapes[0]!.outlines as [Outline];
    expect(outline.closed).toBe(true);
    const p = outline.points;
    for (let k = 0; k < p.length; k += 6)
      expect(Math.abs(Math.hypot(p[k]!, p[k + 1]!) - 100)).toBeLessThan(6 * Math.SQRT2 + 0.03);
    expect([p.at(-2), p.at(-1)]).toEqual([expect.closeTo(p[0]!, 9), expect.closeTo(p[1]!, 9)]);
  });
  it('bends lines that meet alike, unless each is drawn by itself', () => {
    const lines = [card('line', { from: [0, 0], to: [90, 0] }), card('line', { from: [90, 0], to: [90, 80] })];
    const met = (apart: boolean) => {
      const { at } = compiled([...lines, card('wobble', { size: 9, apart })]);
      const [one, other] = at(0, newRoom()).shapes.map(({ outlines: [o] }) => Array.from(o!.points));
      return Math.hypot(one!.at(-2)! - other![0]!, one!.at(-1)! - other![1]!);
    };
    expect(met(false)).toBeCloseTo(0, 9);
    expect(met(true)).toBeGreaterThan(0.1);
  });
  it('is another by another seed, and nothing without a size', () => {
    expect(drawn({ seed: 4 })(0)).not.toEqual(drawn({ seed: 5 })(0));
    expect(drawn({ size: 0 })(0)).toEqual(Array.from(outlines([disc(100)])[0]!.points));
  });
});

describe('twist, zig-steps and reverse', () => {
  it('a twist turns the centre fully and leaves the farthest point', () => {
    const cards = [card('line', { from: [0, 0], to: [100, 0] }), card('twist', { angle: 90 })];
    const [o] = outlines(cards) as [Outline];
    const p = o.points;
    expect([p.at(-2), p.at(-1)]).toEqual([expect.closeTo(100, 6), expect.closeTo(0, 6)]);
    // Half way out it is turned by half: 45°.
    const middle = p.length / 2 - 1;
    expect([p[middle], p[middle + 1]]).toEqual([
      expect.closeTo(50 * Math.SQRT1_2, 6),
      expect.closeTo(50 * Math.SQRT1_2, 6),
    ]);
  });
  it('zig-steps lie their size to each side in turn, as many out as in on a closed outline', () => {
    const [line] = outlines([
      card('line', { from: [0, 0], to: [100, 0] }),
      card('zigsteps', { size: 5, length: 25 }),
    ]) as [Outline];
    expect(flattened(line).map(([x, y]) => [Math.round(x), Math.round(y)])).toEqual([
      [0, -5],
      [25, 5],
      [50, -5],
      [75, 5],
      [100, -5],
    ]);
    const [round] = outlines([disc(100), card('zigsteps', { size: 5, length: 30 })]) as [Outline];
    const radii = flattened(round).map(([x, y]) => Math.round(Math.hypot(x, y)));
    expect(radii.length % 2).toBe(0);
    expect(radii.filter((r) => r === 105)).toHaveLength(radii.length / 2);
  });
  it('reverse makes a trim start at the other end', () => {
    const cards = [card('line', { from: [0, 0], to: [100, 0] }), card('reverse'), card('trim', { end: 0.25 })];
    const box = outlineBox(outlines(cards)[0]!);
    expect([box.left, box.right]).toEqual([75, 100]);
  });
});

describe('a repeater', () => {
  const centres = (values: { [key: string]: Value }) =>
    outlines([square(2), card('repeater', values)]).map((o) => {
      const box = outlineBox(o);
      return [Math.round((box.left + box.right) / 2), Math.round((box.top + box.bottom) / 2)];
    });
  it('in a grid stands row by row about the origin', () => {
    expect(centres({ layout: 'grid', columns: 2, rows: 2, spacing: [100, 60] })).toEqual([
      [-50, -30],
      [50, -30],
      [-50, 30],
      [50, 30],
    ]);
  });
  it('round a centre starts at the top and goes clockwise', () => {
    expect(centres({ layout: 'circle', copies: 4, radius: 100 })).toEqual([
      [0, -100],
      [100, 0],
      [0, 100],
      [-100, 0],
    ]);
    expect(centres({ layout: 'circle', copies: 3, radius: 100, sweep: 180 })).toEqual([
      [0, -100],
      [100, 0],
      [0, 100],
    ]);
  });
  it('of a repeater copies the copies', () => {
    const cards = [
      square(2),
      card('repeater', { copies: 3, position: [10, 0] }),
      card('repeater', { layout: 'circle', copies: 5, radius: 50 }),
    ];
    expect(outlines(cards)).toHaveLength(15);
  });
});

describe('a tapered stroke', () => {
  it('has the area of its width along its length', () => {
    // Smoothstep over half the length at each end: the mean width is half of the full one.
    const cards = [
      card('line', { from: [0, 0], to: [400, 0] }),
      card('stroke', { width: 20, taperStart: 0.5, taperEnd: 0.5, tip: 0, cap: 'butt' }),
    ];
    const [mark] = flow(cards).marks as [FillMark];
    expect(mark.op).toBe('fill');
    expect(area(mark.outlines) / (400 * 10)).toBeCloseTo(1, 3);
  });
  it('is dashed by stretches of its length', () => {
    const cards = [
      card('line', { from: [0, 0], to: [100, 0] }),
      card('stroke', { width: 4, taperStart: 0.01, tip: 1, dashes: [10, 10], cap: 'butt' }),
    ];
    const [mark] = flow(cards).marks as [FillMark];
    expect(mark.outlines).toHaveLength(5);
    expect(area(mark.outlines)).toBeCloseTo(5 * 40, 6);
  });
});
