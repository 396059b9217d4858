import { describe, expect, it } from 'vitest';
import { IDENTITY } from '../geometry/matrix';
import { polygon } from '../geometry/outline';
import type { DisplayList } from '../scene/program';
import type { Mark } from '../recipe/types';
import { repainting } from './repaint';
import { type Context2D, SurfacePool } from './surface';
import { NO_PICTURES } from './target';

const FRAME = { width: 20, height: 20, view: IDENTITY };

/** What of a run of lists is painted, on a context that counts how often it is cleared and fails where it is told to. */
const painted = () => {
  const counted = { cleared: 0, fails: false };
  const context = new Proxy({} as Record<string, unknown>, {
    get: (state, name: string) => {
      if (name === 'clearRect') return () => counted.cleared++;
      if (name === 'fill' && counted.fails) throw new Error('lost');
      return name in state ? state[name] : () => undefined;
    },
  }) as unknown as Context2D;
  const pool = new SurfacePool((width, height) => ({ width, height, context, image: null }));
  return { counted, repaint: repainting(context, { pool, pictures: NO_PICTURES }) };
};

/** Made anew each time, as a frame is. */
const list = (x = 0, fields: Partial<DisplayList> = {}): DisplayList => {
  const outlines = [
    polygon([
      [0, 0],
      [10, 0],
      [10, 10],
    ]),
  ];
  const mark: Mark = {
    op: 'fill',
    outlines,
    matrix: [1, 0, 0, 1, x, 0],
    ink: { style: 'solid', color: '#FFB23E' },
    alpha: 1,
    rule: 'nonzero',
  };
  return { width: 20, height: 20, background: '#1B1F4B', marks: [mark], problems: [], work: 1, ...fields };
};

describe('pictures one after another on one context', () => {
  it('are painted where they show something else', () => {
    const { counted, repaint } = painted();
    const lists = [
      list(),
      list(),
      list(1),
      list(1, { work: 9 }),
      list(1, { background: null }),
      list(1, { marks: [] }),
    ];
    expect(lists.map((one) => repaint(one, FRAME))).toEqual([true, false, true, false, true, true]);
    expect(counted.cleared).toBe(4);
    // The picture before the last is not there any more.
    expect(repaint(list(1, { background: null }), FRAME)).toBe(true);
  });
  it('are painted where they are seen otherwise', () => {
    const { repaint } = painted();
    repaint(list(), FRAME);
    expect([repaint(list(), { ...FRAME, width: 40 }), repaint(list(), { ...FRAME, width: 40 })]).toEqual([true, false]);
  });
  it('are painted again where painting failed', () => {
    const { counted, repaint } = painted();
    repaint(list(), FRAME);
    counted.fails = true;
    expect(() => repaint(list(1), FRAME)).toThrow('lost');
    counted.fails = false;
    expect([repaint(list(1), FRAME), repaint(list(1), FRAME)]).toEqual([true, false]);
  });
  it('have only plain values compared: two effects of the same make are two', () => {
    const { repaint } = painted();
    const softened = () => list(0, { marks: [{ ...list().marks[0], table: new Float32Array(2) } as unknown as Mark] });
    const one = softened();
    expect([repaint(one, FRAME), repaint(one, FRAME), repaint(softened(), FRAME)]).toEqual([true, false, true]);
  });
});
