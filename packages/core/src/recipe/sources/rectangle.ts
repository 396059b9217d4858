import { point, px } from '../../document/params';
import { boxOutline } from '../../geometry/bounds';
import { OutlineWriter } from '../../geometry/outline';
import { short, source } from '../types';

/** Runs clockwise from its top left; the radius shrinks to half the shorter side. */
export const rectangle = source({
  kind: 'rectangle',
  label: 'Rectangle',
  params: {
    width: px('Width', 200, { min: 0, beside: 'height' }),
    height: px('Height', 120, { min: 0, beside: 'width' }),
    radius: px('Corners', 0, { min: 0 }),
    centre: point('Centre', [0, 0]),
  },
  summary: (v) => `${short(v.width)} × ${short(v.height)}`,
  outlines: ({ width, height, radius, centre: [x, y] }) => {
    const [l, t, r, b] = [x - width / 2, y - height / 2, x + width / 2, y + height / 2];
    const c = Math.min(radius, width / 2, height / 2);
    if (c <= 0) {
      return [boxOutline({ left: l, top: t, right: r, bottom: b })];
    }
    const writer = new OutlineWriter(l + c, t);
    if (r - l > 2 * c) writer.line(r - c, t);
    writer.quarter(r, t, r, t + c);
    if (b - t > 2 * c) writer.line(r, b - c);
    writer.quarter(r, b, r - c, b);
    if (r - l > 2 * c) writer.line(l + c, b);
    writer.quarter(l, b, l, b - c);
    if (b - t > 2 * c) writer.line(l, t + c);
    return [writer.quarter(l, t, l + c, t).close()];
  },
});
