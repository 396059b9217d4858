import { point } from '../../document/params';
import type { Point } from '../../document/types';
import { type Box, cornersOf } from '../../geometry/bounds';
import { boxTo } from '../../geometry/homography';
import { polygon } from '../../geometry/outline';
import { triangleTo } from '../../geometry/warp';
import { marksThrough } from '../marksThrough';
import { areaCut, boxOfMarks, grouped } from '../marks';
import { cover, type Mark } from '../types';
import { AREA, boxOfArea } from './area';

/** Its corners, clockwise. */
export const PIN_CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const;
export type PinCorner = (typeof PIN_CORNERS)[number];

type Corners = readonly [Point, Point, Point, Point];

/** Twice the area of a triangle, negative where it turns the other way. */
const turnAt = (a: Point, b: Point, c: Point): number => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

/** Where there is no perspective with such corners, as one lies within the triangle of the others: two triangles that share a diagonal. */
const asTriangles = (marks: readonly Mark[], box: Box, corners: Corners): readonly Mark[] => {
  const from = cornersOf(box) as Corners;
  const at = (i: number): number => {
    const [a, b, c] = [corners[(i + 3) % 4], corners[i], corners[(i + 1) % 4]] as [Point, Point, Point];
    return turnAt(a, b, c);
  };
  const ways = [0, 1, 2, 3].map(at);
  const most = ways.filter((way) => way > 0).length >= 2 ? 1 : -1;
  // From the corner that is dented in, so that both triangles lie within.
  const dent =
    Math.max(
      0,
      ways.findIndex((way) => way * most < 0),
    ) % 2;
  return [
    [dent, dent + 1, dent + 2],
    [dent + 2, (dent + 3) % 4, dent],
  ].flatMap((three) => {
    const there = three.map((i) => corners[i % 4]) as [Point, Point, Point];
    const matrix = triangleTo(three.map((i) => from[i % 4]) as [Point, Point, Point], there);
    return matrix && Math.abs(turnAt(...there)) > 1e-9
      ? [grouped(marksThrough(matrix, marks), { cuts: [areaCut([polygon(there)])] })]
      : [];
  });
};

/** What is above stretched to four corners in true perspective. */
export const pin = cover({
  kind: 'pin',
  label: 'Corner pin',
  params: {
    topLeft: point('Top left', [-100, -60]),
    topRight: point('Top right', [100, -60]),
    bottomRight: point('Bottom right', [100, 60]),
    bottomLeft: point('Bottom left', [-100, 60]),
    ...AREA,
  },
  summary: (v) => (v.from === 'own' ? 'what is above' : 'an area'),
  example: { topLeft: [-70, -40], topRight: [100, -70], bottomRight: [80, 60], bottomLeft: [-100, 40] },
  fitting: ({ left, top, right, bottom }) => ({
    topLeft: [left, top],
    topRight: [right, top],
    bottomRight: [right, bottom],
    bottomLeft: [left, bottom],
  }),
  cover: (marks, v) => {
    const box = boxOfArea(boxOfMarks(marks, false), v);
    if (!box) return [];
    const corners = PIN_CORNERS.map((key) => v[key]) as unknown as Corners;
    const through = boxTo(box, corners);
    // What an effect spreads beyond the box may lie beyond the horizon, and is cut off there.
    return through ? marksThrough(through, marks) : asTriangles(marks, box, corners);
  },
});
