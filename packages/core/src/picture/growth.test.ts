import { describe, expect, it } from 'vitest';
import type { GrowthPoint, GrowthValue, Point } from '../document/types';
import { grown, grownTo, marginFor } from './growth';
import type { AlphaGrid } from './growthWays';

const [WIDTH, HEIGHT] = [420, 220];
const MARGIN = marginFor(4);

/** A picture whose pixels are its cells. */
const pictureOf = (inside: (x: number, y: number) => boolean, width = WIDTH, height = HEIGHT): AlphaGrid => ({
  width: width + 2 * MARGIN,
  height: height + 2 * MARGIN,
  scale: 1,
  place: ([x, y]) => [x + MARGIN, y + MARGIN],
  alpha: Uint8Array.from({ length: (width + 2 * MARGIN) * (height + 2 * MARGIN) }, (_, i) => {
    const x = (i % (width + 2 * MARGIN)) - MARGIN;
    const y = Math.floor(i / (width + 2 * MARGIN)) - MARGIN;
    return x >= 0 && y >= 0 && x < width && y < height && inside(x, y) ? 255 : 0;
  }),
});
const root = (at: Point, wait = 0): GrowthPoint => ({ at, root: true, wait, pace: 1 });
const from = (...points: readonly GrowthPoint[]): GrowthValue => ({ points, strokes: [] });

const grow = (
  picture: AlphaGrid,
  value: GrowthValue,
  more: { gap?: number; tip?: number; backwards?: boolean } = {},
) => {
  const result = grown(picture, { value, gap: 0, tip: 0, backwards: false, ...more });
  return {
    ...result,
    at: (x: number, y: number) => result.times[(y + MARGIN) * picture.width + x + MARGIN]!,
  };
};

/** A stem of ten pixels that branches in its middle. */
const fork = pictureOf((x, y) => (x < 200 && Math.abs(y - 110) < 5) || (Math.abs(x - 200) < 5 && y > 20 && y < 200));

describe('a growth', () => {
  it('goes along a stem and into both of its branches at once', () => {
    const { at, whole } = grow(fork, from(root([2, 110])));
    expect(at(100, 110)).toBeCloseTo(98, -0.5);
    expect(at(200, 30)).toBeCloseTo(at(200, 190), -0.5);
    expect(at(200, 30) - at(200, 60)).toBeCloseTo(30, 0);
    expect(Math.abs(whole - (195 + Math.hypot(5, 85)))).toBeLessThan(6);
  });

  it('begins at its foot where it has no root, and at the nearest of the shape where that lies outside of it', () => {
    expect(grow(fork, from()).at(200, 198)).toBeLessThan(6);
    expect(grow(fork, from(root([-60, 40]))).at(1, 106)).toBeLessThan(4);
  });

  it('waits at a branch, and hurries there, whatever is pressed of it', () => {
    const plain = grow(fork, from(root([2, 110])));
    for (const x of [196, 200, 204]) {
      const wait: GrowthPoint = { at: [x, 70], root: false, wait: 40, pace: 2 };
      const { at } = grow(fork, from(root([2, 110]), wait));
      expect(at(200, 40) - plain.at(200, 75)).toBeCloseTo(40 + 35 / 2, -1);
      expect(at(200, 30) - at(200, 50)).toBeCloseTo(10, 0);
      expect(at(200, 180)).toBeCloseTo(plain.at(200, 180), 3);
    }
  });

  it('has each root begin in its own time', () => {
    const { at } = grow(fork, from(root([2, 110]), root([200, 195], 60)));
    expect(at(200, 150)).toBeCloseTo(60 + 45, -0.5);
    expect(at(50, 110)).toBeCloseTo(48, -0.5);
  });

  it('jumps gaps that are narrow enough, and goes round those that are not', () => {
    // Two corridors that join at their far end, three pixels apart.
    const pair = pictureOf((x, y) => (y >= 50 && y < 70) || (y >= 73 && y < 93) || (x > 390 && y >= 50 && y < 93));
    const round = grow(pair, from(root([4, 60])));
    const jumped = grow(pair, from(root([4, 60])), { gap: 4 });
    expect(round.at(10, 83)).toBeGreaterThan(700);
    expect(jumped.at(10, 83)).toBeLessThan(30);
  });

  it('comes to parts apart after what is nearest to them, from one place each', () => {
    const islands = pictureOf((x, y) => Math.abs(y - 110) < 10 && x % 100 < 60);
    const { at, whole } = grow(islands, from(root([2, 110])));
    expect(at(105, 110)).toBeCloseTo(103, -1);
    expect(at(355, 110)).toBeCloseTo(353, -1);
    expect(whole).toBeCloseTo(417, -1.3);
    const ring = pictureOf((x, y) => {
      const r = Math.hypot(x - 200, y - 110);
      return r < 30 || (r > 60 && r < 70);
    });
    // Round the whole ring, though its far side is as near to the disc.
    expect(grow(ring, from(root([200, 110]))).whole).toBeGreaterThan(60 + 60 * Math.PI * 0.9);
  });

  it('comes last first where it is turned round', () => {
    const way = grow(fork, from(root([2, 110])));
    const back = grow(fork, from(root([2, 110])), { backwards: true });
    expect(back.at(100, 110)).toBeCloseTo(way.whole - way.at(100, 110), 3);
    expect(back.whole).toBeCloseTo(way.whole, 3);
  });

  it('rounds its tip as a circle', () => {
    const bar = pictureOf((_x, y) => Math.abs(y - 110) <= 20);
    const flat = grow(bar, from(root([2, 110])));
    const round = grow(bar, from(root([2, 110])), { tip: 20 });
    for (const off of [0, 8, 14, 18]) {
      const lag = round.at(300, 110 + off) - flat.at(300, 110 + off) - (round.at(300, 110) - flat.at(300, 110));
      expect(Math.abs(lag - (20 - Math.sqrt(400 - off ** 2)))).toBeLessThan(1.5);
    }
  });

  it('follows strokes in their order and at their pace', () => {
    // Down the second branch slowly, then along the stem from right to left quickly.
    const strokes = [
      [200, 20, 0, 200, 200, 900],
      [195, 110, 0, 0, 110, 100],
    ];
    const { at, whole } = grow(fork, { points: [], strokes });
    const scale = whole / 1000;
    expect(at(200, 65)).toBeCloseTo(225 * scale, -0.7);
    expect(at(197, 155)).toBeCloseTo(675 * scale, -0.7);
    expect(at(100, 106)).toBeCloseTo((900 + 48) * scale, -0.7);
    expect(at(10, 112)).toBeGreaterThan(at(180, 112));
  });

  it('written on from what was written before is what it is written at once', () => {
    const result = grow(fork, from(root([2, 110])));
    const going = new Uint32Array(fork.width * fork.height);
    let coming: ReturnType<typeof grownTo> | undefined;
    for (const [shown, soft] of [
      [0.3, 4],
      [0.31, 4],
      [0.9, 40],
      [0.1, 1],
      [1, 8],
      [0, 8],
      [0.5, 3],
    ] as const) {
      coming = grownTo(result, shown, soft, going, coming);
      const fresh = new Uint32Array(fork.width * fork.height);
      grownTo(result, shown, soft, fresh);
      expect(going).toEqual(fresh);
    }
  });

  it('shows nothing at first, all at the end, and never less than before', () => {
    const result = grow(fork, from(root([2, 110])), { gap: 2 });
    const shownAt = (share: number) => {
      const pixels = new Uint32Array(fork.width * fork.height);
      grownTo(result, share, 3, pixels);
      return pixels.map((p) => p >>> 24);
    };
    expect(Math.max(...shownAt(0))).toBe(0);
    const end = shownAt(1);
    expect(fork.alpha.every((a, i) => a === 0 || end[i] === 255)).toBe(true);
    let before = shownAt(0.05);
    for (let n = 2; n < 20; n++) {
      const now = shownAt(n / 20);
      expect(now.every((a, i) => a >= before[i]!)).toBe(true);
      before = now;
    }
  });
});
