import { clamped, each, withFields } from '../../document/fitting';
import { isNumber, isObject } from '../../document/is';
import { FAR, MOST_MESH, plainMesh } from '../../document/params';
import type { MeshValue } from '../../document/types';
import { resampled } from '../../geometry/mesh';
import { type Kind, lerp } from './types';

const isCount = (n: unknown): n is number => Number.isInteger(n) && (n as number) >= 1 && (n as number) <= MOST_MESH;

/** Meshes of other numbers of columns and rows are brought to the larger of both. */
const mix = (from: MeshValue, to: MeshValue, t: number): MeshValue => {
  const [columns, rows] = [Math.max(from.columns, to.columns), Math.max(from.rows, to.rows)];
  const [p, q] = [resampled(from, columns, rows), resampled(to, columns, rows)];
  return { columns, rows, ways: p.ways.map((way, i) => lerp(way, q.ways[i] as number, t)) };
};

export const mesh: Kind<'mesh'> = {
  kind: 'mesh',
  wanted: () => `1 to ${MOST_MESH} columns and rows, and how far each of their points is moved, x and y, row by row`,
  is: (_param, v) =>
    isObject(v) &&
    Object.keys(v).sort().join() === 'columns,rows,ways' &&
    isCount(v.columns) &&
    isCount(v.rows) &&
    Array.isArray(v.ways) &&
    v.ways.length === 2 * (v.columns + 1) * (v.rows + 1) &&
    v.ways.every((way) => isNumber(way) && Math.abs(way) <= FAR),
  fitted: (_param, value) => {
    const [columns, rows] = [value.columns, value.rows].map((n) => Math.round(clamped(n, 1, MOST_MESH, 1)));
    if (columns !== value.columns || rows !== value.rows) return plainMesh(columns as number, rows as number);
    if (value.ways.length !== 2 * (columns + 1) * (rows + 1)) return plainMesh(columns, rows);
    return withFields(value, { ways: each(value.ways, (way) => clamped(way, -FAR, FAR, 0)) });
  },
  mix,
  says: (_param, { columns, rows }) => `${columns} × ${rows}`,
};
