/** How low and how high curves and their handles reach. */
import type { Unit } from '@kite/core/document/params';
import { handlesOf } from './handles';
import type { CurveMode, ShownCurve } from './shown';

export type Extent = readonly [low: number, high: number];

/** How far beyond its curve a handle may reach and still be in sight, as a share of the curve's height. */
const HANDLE_ROOM = 0.5;

/** The lowest and the highest of a curve over a scene, with its handles as far as there is room for them. */
const extentOf = (curve: ShownCurve, mode: CurveMode, length: number, rate: number): Extent => {
  const frames = Array.from({ length: 241 }, (_, i) => (length * i) / 240);
  const values = [...frames, ...curve.property.keys.map((k) => k.frame)].flatMap((frame) => [
    curve.at(frame, 'before'),
    curve.at(frame, 'after'),
  ]);
  if (mode === 'speed') values.push(0);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = (high - low) * HANDLE_ROOM;
  const tips = handlesOf(curve, mode, rate).map((handle) => handle.tip[1]);
  return [Math.max(Math.min(low, ...tips), low - room), Math.min(Math.max(high, ...tips), high + room)];
};

/** How low and how high the curves of each unit go over a scene of so many frames. */
export const extentsOf = (
  curves: readonly ShownCurve[],
  mode: CurveMode,
  length: number,
  rate: number,
): ReadonlyMap<Unit, Extent> => {
  const extents = new Map<Unit, Extent>();
  for (const curve of curves) {
    const [low, high] = extentOf(curve, mode, length, rate);
    const [least, most] = extents.get(curve.unit) ?? [low, high];
    extents.set(curve.unit, [Math.min(low, least), Math.max(high, most)]);
  }
  return new Map(
    [...extents].map(([unit, [low, high]]) => {
      const pad = (high - low) * 0.1 || Math.abs(high) * 0.2 || 1;
      return [unit, [low - pad, high + pad]];
    }),
  );
};
