import { choice, degrees, percent, point, px } from '../../document/params';
import type { Point } from '../../document/types';
import { OutlineWriter, type Outline } from '../../geometry/outline';
import { short, shortPercent, source } from '../types';
import { onCircle } from './polygon';

/** An arc in cubics of at most 45°, each with handles of 4/3 tan(angle / 4) of the radius: off by less than 5e-6 of it. */
const arcTo = (writer: OutlineWriter, centre: readonly [number, number], radius: number, from: number, to: number) => {
  const pieces = Math.max(1, Math.ceil(Math.abs(to - from) / 45 - 1e-9));
  const step = (to - from) / pieces;
  const handle = (4 / 3) * Math.tan((step * Math.PI) / 720) * radius;
  for (let i = 0; i < pieces; i++) {
    const [a, b] = [from + i * step, from + (i + 1) * step];
    const [p, q] = [onCircle(centre, radius, a), onCircle(centre, radius, b)];
    const [dp, dq] = [onCircle([0, 0], handle, a + 90), onCircle([0, 0], handle, b + 90)];
    writer.cubic(p[0] + dp[0], p[1] + dp[1], q[0] - dq[0], q[1] - dq[1], q[0], q[1]);
  }
  return writer;
};

const circle = (centre: readonly [number, number], radius: number, from: number, way: 1 | -1): Outline => {
  const [x, y] = onCircle(centre, radius, from);
  return arcTo(new OutlineWriter(x, y), centre, radius, from, from + way * 360).close();
};

interface Wedge {
  readonly measure: 'share' | 'angles';
  readonly share: number;
  readonly start: number;
  readonly end: number;
  readonly radius: number;
  readonly inner: number;
  readonly centre: Point;
}

/** A share of a disc or ring, clockwise from the top or between two angles. */
export const wedgeOutlines = ({ measure, share, start, end, radius, inner, centre }: Wedge): readonly Outline[] => {
  const sweep = Math.min(360, Math.max(-360, measure === 'share' ? share * 360 : end - start));
  const hole = Math.min(inner, radius);
  if (radius <= 0 || Math.abs(sweep) < 1e-9) return [];
  if (Math.abs(sweep) >= 360) {
    const whole = circle(centre, radius, start, 1);
    return hole > 0 ? [whole, circle(centre, hole, start, -1)] : [whole];
  }
  const [x, y] = hole > 0 ? onCircle(centre, hole, start) : centre;
  const [ox, oy] = onCircle(centre, radius, start);
  const writer = arcTo(new OutlineWriter(x, y).line(ox, oy), centre, radius, start, start + sweep);
  if (hole > 0) {
    const [ix, iy] = onCircle(centre, hole, start + sweep);
    arcTo(writer.line(ix, iy), centre, hole, start + sweep, start);
  }
  return [writer.close()];
};

/** A share of a disc or ring, clockwise from the top or between two angles. */
export const wedge = source({
  kind: 'wedge',
  label: 'Wedge',
  params: {
    measure: choice(
      'Measure',
      [
        { value: 'share', label: 'Percent' },
        { value: 'angles', label: 'Angles' },
      ],
      'share',
    ),
    share: percent('Share', 0.35, { min: -1, max: 1, when: ['measure', 'share'] }),
    start: degrees('Start', 0),
    end: degrees('End', 126, { when: ['measure', 'angles'] }),
    radius: px('Radius', 100, { min: 0 }),
    inner: px('Inner', 0, { min: 0 }),
    centre: point('Centre', [0, 0]),
  },
  summary: (v) =>
    v.measure === 'share'
      ? `${shortPercent(v.share)} of a ${v.inner > 0 ? 'ring' : 'disc'}`
      : `${short(v.start)}° to ${short(v.end)}°`,
  outlines: wedgeOutlines,
});
