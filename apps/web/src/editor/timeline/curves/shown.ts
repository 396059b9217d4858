/** Which curves the curves view shows, and how high they reach. */
import type { NumberParam, PointParam, Unit } from '@kite/core/document/params';
import {
  type Id,
  isKeyed,
  type KeyedProperty,
  type Point,
  type PropertyRef,
  type Scene,
} from '@kite/core/document/types';
import { keyedCurvesOf, paramIn, propertyIn, refKey } from '@kite/core/properties/find';
import { samplerOf } from '@kite/core/motion/sampler';
import { speedOf } from '@kite/core/motion/speed';
import { framesPerSecond } from '@kite/core/time/rate';
import { factorOf } from '../../inspector/fields/units';
import { ribbonName } from '../rows';

export type CurveMode = 'value' | 'speed';

/** A number over time: a property, one component of a point, or how fast either changes. */
export interface ShownCurve {
  readonly id: string;
  readonly ref: PropertyRef;
  readonly param: NumberParam | PointParam;
  readonly property: KeyedProperty;
  /** Of a point's values: which one. */
  readonly component: 0 | 1 | null;
  readonly label: string;
  readonly color: string;
  readonly unit: Unit;
  /** In the units that are shown; speeds are per second. `side` matters at keyframes, where speeds may jump. */
  readonly at: (frame: number, side?: 'before' | 'after') => number;
}

const COLORS = ['var(--sky)', 'var(--tail)', 'var(--kite)', 'var(--sun)', 'var(--tag-violet)', 'var(--tag-rose)'];
/** More than these could not be told apart. */
export const MOST_CURVES = 24;

/** The curves of all that is animated on some layers. */
export const shownCurves = (scene: Scene, layers: readonly Id[], mode: CurveMode): ShownCurve[] => {
  const refs = layers.flatMap((id) => {
    const layer = scene.layers[id];
    return layer ? keyedCurvesOf(scene.id, layer) : [];
  });
  const curves = refs.flatMap((ref): Omit<ShownCurve, 'color'>[] => {
    const layer = scene.layers[ref.layer];
    const param = paramIn(layer, ref);
    const property = propertyIn(layer, ref);
    if (!layer || !isKeyed(property) || (param?.kind !== 'number' && param?.kind !== 'point')) return [];
    const name = `${layer.name} · ${ribbonName(layer, ref)}`;
    const base = { ref, param, property, unit: param.unit };
    const factor = factorOf(param.unit);
    if (mode === 'speed') {
      const speed = speedOf(param, property);
      const per = factor * framesPerSecond(scene.rate);
      return [{ ...base, id: refKey(ref), component: null, label: name, at: (f, side) => speed(f, side) * per }];
    }
    const sampler = samplerOf(param, property);
    if (param.kind === 'number') {
      return [
        { ...base, id: refKey(ref), component: null, label: name, at: (f) => (sampler.at(f) as number) * factor },
      ];
    }
    return ([0, 1] as const).map((component) => ({
      ...base,
      id: `${refKey(ref)}/${component}`,
      component,
      label: `${name} ${'xy'.charAt(component)}`,
      at: (f: number) => (sampler.at(f) as Point)[component] * factor,
    }));
  });
  return curves.slice(0, MOST_CURVES).map((curve, i) => ({ ...curve, color: COLORS[i % COLORS.length] as string }));
};

/** Frames and values to draw a curve by: fine within spans, and both sides of each keyframe. */
export const sampledCurve = (
  curve: ShownCurve,
  from: number,
  to: number,
  step: number,
): readonly (readonly [frame: number, value: number])[] => {
  const points: [number, number][] = [];
  const keys = curve.property.keys.map((k) => k.frame).filter((f) => f > from && f < to);
  for (const [i, end] of [...keys, to].entries()) {
    const start = i === 0 ? from : (keys[i - 1] as number);
    points.push([start, curve.at(start, 'after')]);
    for (let f = start + step; f < end; f += step) points.push([f, curve.at(f)]);
    points.push([end, curve.at(end, 'before')]);
  }
  return points;
};
