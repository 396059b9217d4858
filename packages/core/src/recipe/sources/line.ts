import { point } from '../../document/params';
import { OutlineWriter } from '../../geometry/outline';
import { short, source } from '../types';

export const line = source({
  kind: 'line',
  label: 'Line',
  params: { from: point('From', [-100, 0]), to: point('To', [100, 0]) },
  summary: ({ from, to }) => `${short(Math.hypot(to[0] - from[0], to[1] - from[1]))} px`,
  outlines: ({ from, to }) => [new OutlineWriter(from[0], from[1]).line(to[0], to[1]).open()],
});
