import { mesh as meshParam, percent } from '../../document/params';
import { grown } from '../../geometry/bounds';
import { wayAt } from '../../geometry/mesh';
import { warpBy } from '../../geometry/warp';
import { marksBy, warping } from '../bent';
import { boxOfMarks } from '../marks';
import { cover } from '../types';
import { AREA, boxOfArea } from './area';

/** Cells of the grid that pictures are bent by are about so large, in pixels, and no more than so many each way in a column or a row. */
const CELL = 10;
const MOST_IN_ONE = 16;

const cellsFor = (length: number, pieces: number): number =>
  pieces * Math.min(MOST_IN_ONE, Math.max(1, Math.ceil(length / pieces / CELL)));

/** What is above bent by a mesh of points. */
export const mesh = cover({
  kind: 'mesh',
  label: 'Mesh',
  params: {
    points: meshParam('Points', 2, 2),
    smooth: percent('Round', 1, { hint: 'edges between its points' }),
    ...AREA,
  },
  summary: ({ points: { columns, rows } }) => `${columns} × ${rows}`,
  example: {
    points: { columns: 1, rows: 1, ways: [20, 30, -10, -40, 30, 10, -20, 40] },
  },
  cover: (marks, v) => {
    const box = boxOfArea(boxOfMarks(marks, false), v);
    const all = boxOfMarks(marks);
    if (!box || !all) return marks;
    const { points, smooth } = v;
    if (points.ways.every((way) => way === 0)) return marks;
    const [width, height] = [box.right - box.left, box.bottom - box.top];
    const to = ([x, y]: readonly [number, number]): readonly [number, number] => {
      const [dx, dy] = wayAt(points, smooth, (x - box.left) / width, (y - box.top) / height);
      return [x + dx, y + dy];
    };
    // What effects spread beyond the box is moved as its edge is.
    const whole = grown(all, 2);
    const [columns, rows] = [
      cellsFor(whole.right - whole.left, points.columns),
      cellsFor(whole.bottom - whole.top, points.rows),
    ];
    return marksBy(warping(to, warpBy(whole, columns, rows, to)), marks);
  },
});
