import { describe, expect, it } from 'vitest';
import { newItem } from '../document/make';
import type { Value } from '../document/types';
import { boxOutline } from '../geometry/bounds';
import { OutlineWriter } from '../geometry/outline';
import { newDrawing, newScene } from '../document/make';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { byDashes, fittedDashes } from './paints/dashes';

const box = boxOutline({ left: 0, top: 0, right: 100, bottom: 50 });
const line = new OutlineWriter(0, 0).line(100, 0).open();

describe('dashes that fit', () => {
  it('go round a closed outline a whole number of times', () => {
    const dashes = fittedDashes([10, 5], 12, box);
    expect(dashes.reduce((sum, d) => sum + d, 0) * 12).toBeCloseTo(300, 9);
    expect(dashes[0]! / dashes[1]!).toBeCloseTo(2, 12);
  });
  it('begin and end an open one', () => {
    const [dash, gap] = fittedDashes([], 3, line) as [number, number];
    expect([dash, gap]).toEqual([20, 20]);
    expect(3 * dash + 2 * gap).toBeCloseTo(100, 12);
    // Dots: one at each end.
    expect(fittedDashes([0, 8], 5, line)).toEqual([0, 25]);
    expect(fittedDashes([0, 8], 1, line)).toEqual([0, 800]);
  });
  it('are those of each outline', () => {
    const large = boxOutline({ left: 0, top: 0, right: 200, bottom: 100 });
    const parts = byDashes([box, large, box], [3, 3], 10);
    expect(parts.map((p) => [p.outlines.length, p.dashes[0]])).toEqual([
      [2, 15],
      [1, 30],
    ]);
    expect(byDashes([box, large], [0, 0], 0)).toEqual([{ dashes: [], outlines: [box, large] }]);
  });
  it('keep their number in a stroke while its shape grows', () => {
    const scene = newScene('s', 'One', {
      width: 400,
      height: 300,
      rate: { num: 25, den: 1 },
      length: 9,
      background: null,
    });
    const marks = (width: number, values: { [key: string]: Value }) => {
      const items = [newItem('r', 'rectangle', { width, height: 50 }), newItem('t', 'stroke', values)];
      const layer = newDrawing(scene, 'l', 'L', items);
      return compileScene({ ...scene, layers: { l: layer }, order: ['l'] }, NO_LIBRARY).at(0).marks;
    };
    for (const width of [50, 100, 333]) {
      const [mark] = marks(width, { fit: 8, dashes: [4, 4], opacity: 0.5 });
      expect(mark).toMatchObject({
        op: 'stroke',
        alpha: 0.5,
        dashes: [(2 * width + 100) / 16, (2 * width + 100) / 16],
      });
      const [tapered] = marks(width, { fit: 8, dashes: [4, 4], taperEnd: 0.5 });
      expect(tapered).toMatchObject({ op: 'fill', outlines: { length: 8 } });
    }
    expect(marks(100, { fit: 8, width: 0 })).toEqual([]);
  });
});
