import { degrees, point } from '../../document/params';
import { warped } from '../../geometry/flatten';
import { short } from '../types';
import { shapeStep } from '../shapeStep';

/** Turns the plane about a centre: fully there, not at all at the outlines' farthest point, evenly less between. */
export const twist = shapeStep({
  kind: 'twist',
  label: 'Twist',
  params: { angle: degrees('Angle', 60), centre: point('Centre', [0, 0]) },
  summary: (v) => `${short(v.angle)}°`,
  each: (outlines, { angle, centre: [cx, cy] }) => {
    let reach = 0;
    for (const { points: p } of outlines) {
      for (let k = 0; k < p.length; k += 6) reach = Math.max(reach, Math.hypot(p[k]! - cx, p[k + 1]! - cy));
    }
    if (angle === 0 || reach < 1e-9) return outlines;
    const full = (angle * Math.PI) / 180;
    return outlines.map((outline) =>
      warped(outline, 8, ([x, y]) => {
        const [dx, dy] = [x - cx, y - cy];
        const turn = full * (1 - Math.hypot(dx, dy) / reach);
        const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
        return [cx + cos * dx - sin * dy, cy + sin * dx + cos * dy];
      }),
    );
  },
});
