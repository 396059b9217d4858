import { mesh as meshParam, percent } from '../../document/params';
import { grown } from '../../geometry/bounds';
import { bendOf, wayAt } from '../../geometry/mesh';
import { warpBy } from '../../geometry/warp';
import { marksBy, warping } from '../bent';
import { boxOfMarks } from '../marks';
import { cover } from '../types';
import { AREA, boxOfArea } from './area';

/** How far what is bent by a grid may lie from where the mesh has it, in pixels, and the most cells between two of its points. */
const [TOLERANCE, MOST_IN_ONE] = [0.25, 16];

/** Cells between two points of a mesh: a curve is as far from its chord as its bend by the square of these, an eighth of it. */
const cellsFor = (bend: number): number =>
  Math.min(MOST_IN_ONE, Math.max(1, Math.ceil(Math.sqrt((3 * bend) / (8 * TOLERANCE)))));

/** Lines in equal steps over what a mesh is of, and at the ends of what is bent with it. */
const linesOf = (
  [least, most]: readonly [number, number],
  [from, to]: readonly [number, number],
  steps: number,
): readonly number[] => [
  ...(least < from ? [least] : []),
  ...Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps),
  ...(most > to ? [most] : []),
];

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
    const cells = cellsFor(bendOf(points));
    const xs = linesOf([whole.left, whole.right], [box.left, box.right], points.columns * cells);
    const ys = linesOf([whole.top, whole.bottom], [box.top, box.bottom], points.rows * cells);
    return marksBy(
      warping(to, () => warpBy(xs, ys, to)),
      marks,
    );
  },
});
