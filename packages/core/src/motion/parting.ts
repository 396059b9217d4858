/** Taking the parts of a point apart and bringing them together, without losing motion. */
import type { PointParam } from '../document/params';
import {
  type ApartProperty,
  type CurveProperty,
  isApart,
  isKeyed,
  type KeyedProperty,
  type Keyframe,
  type Point,
  type Property,
} from '../document/types';
import { bakedKeys } from './bake';
import { samplerOf } from './sampler';
import { isCurved } from './track';

/** How far a value written for a curve may be off, in the units of the point. */
const TOLERANCE = 0.01;

/** Keyframes of one component over a property's whole length, from those of the point where its way is straight. */
const partKeys = (param: PointParam, property: KeyedProperty, part: 0 | 1): Keyframe[] => {
  const { keys, even } = property;
  const sampler = samplerOf(param, property);
  const at = (frame: number) => (sampler.at(frame) as Point)[part];
  const first = keys[0] as Keyframe;
  const last = keys.at(-1) as Keyframe;
  if (even) return bakedKeys(at, first.frame, last.frame, TOLERANCE);
  return keys.flatMap((key, i): Keyframe[] => {
    const next = keys[i + 1];
    if (next && isCurved(key, next)) return bakedKeys(at, key.frame, next.frame, TOLERANCE).slice(0, -1);
    return [{ frame: key.frame, value: (key.value as Point)[part], ease: key.ease }];
  });
};

/** A point's x and y apart. Curved ways are written out as keyframes, right at every whole frame. */
export const takenApart = (param: PointParam, property: Property | undefined): ApartProperty => {
  if (isApart(property)) return property;
  const part = (axis: 0 | 1): CurveProperty => {
    if (!isKeyed(property)) return { value: ((property?.value ?? param.default) as Point)[axis] };
    const { before, after } = property;
    return { keys: partKeys(param, property, axis), ...(before && { before }), ...(after && { after }) };
  };
  return { parts: [part(0), part(1)] };
};

const framesOf = (property: CurveProperty): number[] => (isKeyed(property) ? property.keys.map((k) => k.frame) : []);

/** The ease of the span that starts at a frame, where the property has a keyframe there and at `to`, or moves not at all. */
const easeOver = (property: CurveProperty, from: number, to: number): Keyframe['ease'] | 'any' | null => {
  if (!isKeyed(property)) return 'any';
  const { keys } = property;
  if (to <= (keys[0] as Keyframe).frame || from >= (keys.at(-1) as Keyframe).frame) return 'any';
  const i = keys.findIndex((k) => k.frame === from);
  const [key, next] = [keys[i], keys[i + 1]];
  if (!key || next?.frame !== to) return null;
  return key.value === next.value ? 'any' : key.ease;
};

const sameEase = (a: Keyframe['ease'], b: Keyframe['ease']) => JSON.stringify(a) === JSON.stringify(b);

/** x and y as one point again. Where their eases differ the way is written out as keyframes, right at every whole frame. */
export const broughtTogether = (param: PointParam, property: ApartProperty): CurveProperty => {
  const [x, y] = property.parts;
  const sampler = samplerOf(param, property);
  const at = (frame: number) => sampler.at(frame) as Point;
  const frames = [...new Set([...framesOf(x), ...framesOf(y)])].sort((a, b) => a - b);
  if (frames.length === 0) return { value: at(0) };
  const keys = frames.flatMap((frame, i): Keyframe[] => {
    const next = frames[i + 1];
    if (next === undefined) return [{ frame, value: at(frame), ease: { kind: 'linear' } }];
    const [a, b] = [easeOver(x, frame, next), easeOver(y, frame, next)];
    const ease = a === 'any' ? (b === 'any' ? { kind: 'linear' as const } : b) : b === 'any' ? a : null;
    const shared = ease ?? (a !== null && b !== null && a !== 'any' && b !== 'any' && sameEase(a, b) ? a : null);
    if (shared) return [{ frame, value: at(frame), ease: shared }];
    const wanted = new Set(
      ([0, 1] as const).flatMap((axis) => bakedKeys((f) => at(f)[axis], frame, next, TOLERANCE).map((k) => k.frame)),
    );
    wanted.delete(next);
    return [...wanted].sort((p, q) => p - q).map((f) => ({ frame: f, value: at(f), ease: { kind: 'linear' } }));
  });
  const ends = (p: CurveProperty) =>
    isKeyed(p) ? { ...(p.before && { before: p.before }), ...(p.after && { after: p.after }) } : {};
  return { keys, ...ends(y), ...ends(x) };
};
