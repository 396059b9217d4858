import { describe, expect, it } from 'vitest';
import { Front, type Ground, startsAt } from './march';

/** The ground of what is inside, two empty cells all round. */
const groundOf = (width: number, height: number, inside: (x: number, y: number) => boolean): Ground => {
  const open = new Uint8Array(width * height);
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) open[y * width + x] = inside(x, y) ? 1 : 0;
  }
  return { width, height, open };
};

const frontFrom = (ground: Ground, [x, y]: readonly [number, number]) => {
  const front = new Front(ground);
  front.go(startsAt(ground, { cell: y * ground.width + x, time: 0, pace: 1, origin: 7 }));
  return front;
};

/** The largest share by which a front is wrong where it comes from farther than `from`, of what `exact` says. */
const worst = (
  ground: Ground,
  root: readonly [number, number],
  exact: (x: number, y: number) => number,
  from: number,
): number => {
  const { times } = frontFrom(ground, root);
  let most = 0;
  ground.open.forEach((own, cell) => {
    if (own !== 1) return;
    const way = exact(cell % ground.width, Math.floor(cell / ground.width));
    if (way > from) most = Math.max(most, Math.abs(times[cell]! - way) / way);
  });
  return most;
};

describe('a front through a shape, against ways that are known', () => {
  it('goes along a corridor', () => {
    const ground = groundOf(604, 44, () => true);
    expect(worst(ground, [22, 22], (x, y) => Math.hypot(x - 22, y - 22), 60)).toBeLessThan(0.01);
  });

  it('goes round the hole of a ring: along the tangents and the arc between them', () => {
    const [middle, inner, outer] = [260, 120, 250];
    const ground = groundOf(520, 520, (x, y) => {
      const r = Math.hypot(x - middle, y - middle);
      // Cells of which an eighth is inside.
      return r >= inner - 0.37 && r <= outer + 0.37;
    });
    const start = 190;
    const exact = (x: number, y: number) => {
      const r = Math.hypot(x - middle, y - middle);
      const angle = Math.abs(Math.atan2(y - middle, x - middle));
      const [a, b] = [Math.acos(inner / start), Math.acos(Math.min(1, inner / r))];
      return angle <= a + b
        ? Math.hypot(x - middle - start, y - middle)
        : Math.sqrt(start ** 2 - inner ** 2) + Math.sqrt(Math.max(0, r ** 2 - inner ** 2)) + inner * (angle - a - b);
    };
    expect(worst(ground, [middle + start, middle], exact, 60)).toBeLessThan(0.01);
  });

  /** From corner to corner: each of them is the middle between the four cells that meet there. */
  const byCorners = (...points: readonly (readonly [number, number])[]) =>
    points.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - points[i]![0], y - points[i]![1]), 0);

  it('winds along a spiral, round each of its inner corners', () => {
    // Walls of a square spiral, thirty cells from wall to wall, two cells thick.
    const wall = (x: number, y: number) =>
      (x >= 60 && x < 62 && y >= 30) ||
      (y >= 30 && y < 32 && x >= 60 && x < 280) ||
      (x >= 278 && x < 280 && y >= 30 && y < 250) ||
      (y >= 248 && y < 250 && x >= 92 && x < 280) ||
      (x >= 92 && x < 94 && y >= 64 && y < 250);
    const ground = groundOf(312, 284, (x, y) => !wall(x, y));
    const { times, origins } = frontFrom(ground, [30, 270]);
    const end: readonly [number, number] = [78, 270];
    const corners = [[30, 270], [59.5, 29.5], [279.5, 29.5], [279.5, 249.5], [91.5, 249.5], end] as const;
    const way = byCorners(...corners);
    expect(Math.abs(times[end[1] * 312 + end[0]]! - way) / way).toBeLessThan(0.01);
    expect(origins[end[1] * 312 + end[0]]).toBe(7);
  });

  it('comes into each tooth of a comb round its corner', () => {
    const ground = groundOf(504, 404, (x, y) => y < 42 || (x - 2) % 80 < 30);
    const { times } = frontFrom(ground, [10, 20]);
    for (const tooth of [2, 3, 5]) {
      const left = 2 + tooth * 80;
      const end: readonly [number, number] = [left + 12, 395];
      const way = byCorners([10, 20], [left - 0.5, 41.5], end);
      expect(Math.abs(times[end[1] * 504 + end[0]]! - way) / way, `tooth ${tooth}`).toBeLessThan(0.01);
    }
  });

  it('waits where it is told to, and goes on at another pace', () => {
    const ground = groundOf(404, 24, () => true);
    const zones = Uint8Array.from(ground.open, (_, cell) => (Math.abs((cell % 404) - 200) < 15 ? 1 : 0));
    const front = new Front(ground, zones, [{ wait: 50, pace: 2 }]);
    front.go([{ cell: 12 * 404 + 10, time: 0, pace: 1, origin: 0 }]);
    const at = (x: number) => front.times[12 * 404 + x]!;
    expect(at(180)).toBeCloseTo(170, 1);
    expect(at(300)).toBeCloseTo(175 + 50 + 115 / 2, 1);
    expect(at(390) - at(300)).toBeCloseTo(45, 1);
  });

  it('waits for as long as a project can say, and goes on as before', () => {
    const ground = groundOf(204, 24, () => true);
    const zones = Uint8Array.from(ground.open, (_, cell) => (Math.abs((cell % 204) - 100) < 15 ? 1 : 0));
    const front = new Front(ground, zones, [{ wait: 400_000, pace: 20 }]);
    front.go([{ cell: 12 * 204 + 10, time: 0, pace: 1, origin: 0 }]);
    expect(front.times[12 * 204 + 190]! - front.times[12 * 204 + 150]!).toBeCloseTo(40 / 20, -0.5);
    expect(front.times[12 * 204 + 120]).toBeGreaterThan(400_000);
  });

  it('never comes where nothing leads', () => {
    const ground = groundOf(64, 24, (x) => x < 20 || x > 40);
    const front = frontFrom(ground, [10, 10]);
    expect(front.times[10 * 64 + 50]).toBe(Infinity);
    expect(front.reached(10 * 64 + 50)).toBe(false);
  });
});
