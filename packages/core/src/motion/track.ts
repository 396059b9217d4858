/** Motion paths: the track of a point from keyframe to keyframe, straight or along Béziers. */
import type { KeyedProperty, Keyframe, Point } from '../document/types';
import { along, arcLength } from '../geometry/length';
import type { Outline } from '../geometry/outline';

/** The way of a stretch of motion. */
export interface Track {
  /** In the units of the point, pixels for positions. */
  readonly length: number;
  /**
   * The point at a share of the length, so that equal shares are equal distances. Shares below 0 and above 1, which
   * eases that overshoot ask for, lie on the straight way on beyond the end.
   */
  readonly at: (share: number) => Point;
  /** The direction of travel at a share, in degrees clockwise from the right; null on a track of no length. */
  readonly heading: (share: number) => number | null;
}

/** Whether the way from one keyframe to the next is curved. */
export const isCurved = (from: Keyframe, to: Keyframe): boolean =>
  [from.handles?.[2], from.handles?.[3], to.handles?.[0], to.handles?.[1]].some((x) => x !== undefined && x !== 0);

/** The cubic from one keyframe to the next. */
const cubicTo = (from: Keyframe, to: Keyframe): readonly number[] => {
  const [p, q] = [from.value as Point, to.value as Point];
  if (!isCurved(from, to)) {
    const [dx, dy] = [(q[0] - p[0]) / 3, (q[1] - p[1]) / 3];
    return [p[0] + dx, p[1] + dy, q[0] - dx, q[1] - dy, q[0], q[1]];
  }
  const [, , outX, outY] = from.handles ?? [0, 0, 0, 0];
  const [inX, inY] = to.handles ?? [0, 0, 0, 0];
  return [p[0] + outX, p[1] + outY, q[0] + inX, q[1] + inY, q[0], q[1]];
};

/** The motion path through keyframes of a point, a cubic for each span. */
export const outlineThrough = (keys: readonly Keyframe[]): Outline => {
  const first = (keys[0] as Keyframe).value as Point;
  const rest = keys.slice(1).flatMap((key, i) => cubicTo(keys[i] as Keyframe, key));
  return { closed: false, points: Float64Array.from([...first, ...rest]) };
};

const degrees = (dx: number, dy: number) => (Math.atan2(dy, dx) * 180) / Math.PI;

const trackAlong = (outline: Outline): Track => {
  const length = arcLength(outline);
  const end = (from: 0 | 1) => along(outline, from * length);
  return {
    length,
    at: (share) => {
      if (length < 1e-9) return [outline.points[0] ?? 0, outline.points[1] ?? 0];
      if (share >= 0 && share <= 1) {
        const { x, y } = along(outline, share * length);
        return [x, y];
      }
      const { x, y, dx, dy } = end(share < 0 ? 0 : 1);
      const over = (share < 0 ? share : share - 1) * length;
      return [x + dx * over, y + dy * over];
    },
    heading: (share) => {
      if (length < 1e-9) return null;
      const { dx, dy } = along(outline, Math.min(1, Math.max(0, share)) * length);
      return degrees(dx, dy);
    },
  };
};

const straight = (p: Point, q: Point): Track => {
  const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
  const length = Math.hypot(dx, dy);
  const heading = length < 1e-9 ? null : degrees(dx, dy);
  return { length, at: (share) => [p[0] + dx * share, p[1] + dy * share], heading: () => heading };
};

/** The track of each span of a property, and of the whole of one that has one pace. */
export const tracksOf = ({ keys, even }: KeyedProperty): readonly Track[] => {
  if (even) return [trackAlong(outlineThrough(keys))];
  return keys.slice(1).map((to, i) => {
    const from = keys[i] as Keyframe;
    return isCurved(from, to)
      ? trackAlong(outlineThrough([from, to]))
      : straight(from.value as Point, to.value as Point);
  });
};
