/** A keyframe put into a span, so that the motion stays as it is. */
import type { Param } from '../document/params';
import {
  type CurveProperty,
  isApart,
  isKeyed,
  type Keyframe,
  type PathHandles,
  type Point,
  type Property,
} from '../document/types';
import { arcLength, part } from '../geometry/length';
import { partParam } from './apart';
import { dividedEase } from './eases/divide';
import { curveOf } from './eases/table';
import { withKey } from './keys';
import { kindOfValue } from './kinds/table';
import { step } from './kinds/types';
import { samplerOf } from './sampler';
import { isCurved, outlineThrough } from './track';

const handlesOf = (key: Keyframe): PathHandles => key.handles ?? [0, 0, 0, 0];

/** A motion path cut at a share of its length: its ends with their new handles, and what stands between them. */
const cutPath = (
  p: Keyframe,
  q: Keyframe,
  share: number,
): readonly [Keyframe, Pick<Keyframe, 'value' | 'handles'>, Keyframe] => {
  const whole = outlineThrough([p, q]);
  const length = arcLength(whole);
  const [first, second] = [part(whole, 0, share * length), part(whole, share * length, length)];
  if (!first || !second) return [p, { value: share < 0.5 ? p.value : q.value }, q];
  const [a, b] = [first.points, second.points];
  const middle: Point = [b[0]!, b[1]!];
  const way = (points: Float64Array, handle: number, from: number): Point => [
    points[handle]! - points[from]!,
    points[handle + 1]! - points[from + 1]!,
  ];
  const [inP, inPy] = handlesOf(p);
  const [, , outQ, outQy] = handlesOf(q);
  return [
    { ...p, handles: [inP, inPy, ...way(a, 2, 0)] },
    { value: middle, handles: [...way(a, 4, 6), ...way(b, 2, 0)] },
    { ...q, handles: [...way(b, 4, 6), outQ, outQy] },
  ];
};

const inserted = (param: Param, property: CurveProperty | undefined, frame: number): CurveProperty => {
  const keys = isKeyed(property) ? property.keys : [];
  const i = keys.findLastIndex((key) => key.frame <= frame);
  const [p, q] = [keys[i], keys[i + 1]];
  if (!isKeyed(property) || !p || !q || p.frame === frame) {
    return withKey(param, property, frame, samplerOf(param, property).at(frame)) as CurveProperty;
  }
  const { mix } = kindOfValue(param.kind);
  const at = (frame - p.frame) / (q.frame - p.frame);
  const between = (...put: readonly Keyframe[]): CurveProperty => ({
    ...property,
    keys: [...keys.slice(0, i), ...put, ...keys.slice(i + 2)],
  });
  // One pace along the whole path: a keyframe gives the way alone, wherever on it.
  if (property.even) {
    const [before, own, after] = cutPath(p, q, at);
    return between(before, { ...own, frame, ease: p.ease }, after);
  }
  if (mix === step) return between(p, { ...p, frame }, q);
  const share = curveOf(p.ease)(at);
  const [first, second] = dividedEase(p.ease, at);
  if (param.kind === 'point' && isCurved(p, q) && share > 0 && share < 1) {
    const [before, own, after] = cutPath(p, q, share);
    return between({ ...before, ease: first }, { ...own, frame, ease: second }, after);
  }
  return between({ ...p, ease: first }, { frame, value: mix(p.value, q.value, share), ease: second }, q);
};

/**
 * A property with a keyframe at a frame that leaves its motion as it was: between two keyframes their ease is cut in two, and so
 * is their motion path; elsewhere it has the value that is there. On both parts of a point that are apart.
 */
export const withKeyInserted = (param: Param, property: Property | undefined, frame: number): Property => {
  if (!isApart(property)) return inserted(param, property, frame);
  if (param.kind !== 'point') return property;
  const [x, y] = property.parts;
  return { parts: [inserted(partParam(param, 0), x, frame), inserted(partParam(param, 1), y, frame)] };
};
