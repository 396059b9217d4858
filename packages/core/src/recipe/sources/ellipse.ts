import { point, px } from '../../document/params';
import { OutlineWriter } from '../../geometry/outline';
import { short, source } from '../types';

/** Runs clockwise from its top, in four cubics. */
export const ellipse = source({
  kind: 'ellipse',
  label: 'Ellipse',
  params: {
    width: px('Width', 200, { min: 0, beside: 'height' }),
    height: px('Height', 200, { min: 0, beside: 'width' }),
    centre: point('Centre', [0, 0]),
  },
  summary: (v) => `${short(v.width)} × ${short(v.height)}`,
  outlines: ({ width, height, centre: [x, y] }) => {
    const [l, t, r, b] = [x - width / 2, y - height / 2, x + width / 2, y + height / 2];
    return [
      new OutlineWriter(x, t).quarter(r, t, r, y).quarter(r, b, x, b).quarter(l, b, l, y).quarter(l, t, x, t).close(),
    ];
  },
});
