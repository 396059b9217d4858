import { isNumber, isObject } from '../../document/is';
import { clamped } from '../../document/fitting';
import { FAR, MOST_VERTICES } from '../../document/params';
import type { Vertex } from '../../document/types';
import { mixPaths } from '../morph';
import type { Kind } from './types';

const isVertex = (p: unknown): boolean =>
  Array.isArray(p) && p.length === 6 && p.every((x) => isNumber(x) && Math.abs(x) <= FAR);

export const path: Kind<'path'> = {
  kind: 'path',
  wanted: () => `a path of at most ${MOST_VERTICES} vertices, each six numbers within ${FAR}`,
  is: (_param, v) =>
    isObject(v) &&
    typeof v.closed === 'boolean' &&
    Array.isArray(v.vertices) &&
    v.vertices.length <= MOST_VERTICES &&
    v.vertices.every(isVertex),
  fitted: (_param, v) => {
    if (v.vertices.every((vertex) => vertex.every((x) => Math.abs(x) <= FAR))) return v;
    return {
      ...v,
      vertices: v.vertices.map((vertex) => vertex.map((x) => clamped(x, -FAR, FAR, 0)) as unknown as Vertex),
    };
  },
  excess: ({ vertices }) =>
    vertices.length > MOST_VERTICES ? { owner: 'A path', most: MOST_VERTICES, what: 'vertices' } : null,
  mix: mixPaths,
  says: (_param, { vertices }) => `${vertices.length} vertices`,
};
