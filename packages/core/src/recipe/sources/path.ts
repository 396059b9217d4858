import { path as pathParam } from '../../document/params';
import { outlineOfPath } from '../../geometry/outline';
import { source } from '../types';

export const path = source({
  kind: 'path',
  label: 'Path',
  params: { path: pathParam('Outline', { closed: false, vertices: [] }) },
  summary: ({ path: { vertices, closed } }) => `${vertices.length} vertices, ${closed ? 'closed' : 'open'}`,
  outlines: (v) => {
    const outline = outlineOfPath(v.path);
    return outline ? [outline] : [];
  },
});
