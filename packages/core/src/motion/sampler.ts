import type { Param } from '../document/params';
import {
  type Beyond,
  isKeyed,
  type KeyedProperty,
  type Keyframe,
  type Property,
  type Value,
  type ValueKind,
} from '../document/types';
import { curveOf } from './eases/table';
import { MIX, movedBy } from './mix';

/** A property's value at any frame, whole or not. */
export interface Sampler {
  readonly at: (frame: number) => Value;
  /** Whether the value is the same at every frame. */
  readonly constant: boolean;
}

const still = (value: Value): Sampler => ({ at: () => value, constant: true });

/** The index of the last key at or before a frame, -1 if there is none. */
const indexAt = (keys: readonly Keyframe[], frame: number): number => {
  let low = 0;
  let high = keys.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if ((keys[mid] as Keyframe).frame <= frame) low = mid + 1;
    else high = mid;
  }
  return low - 1;
};

const keyed = (kind: ValueKind, property: KeyedProperty): Sampler => {
  const { keys } = property;
  const first = keys[0] as Keyframe;
  const last = keys.at(-1) as Keyframe;
  if (keys.length === 1) return still(first.value);
  const mix = MIX[kind] as (from: Value, to: Value, t: number) => Value;
  const length = last.frame - first.frame;

  const within = (frame: number): Value => {
    const i = Math.min(Math.max(indexAt(keys, frame), 0), keys.length - 2);
    const p = keys[i] as Keyframe;
    const q = keys[i + 1] as Keyframe;
    // A mix with what comes next may have another form, as a path with more vertices.
    if (frame === p.frame) return p.value;
    return mix(p.value, q.value, curveOf(p.ease)((frame - p.frame) / (q.frame - p.frame)));
  };

  /** The value `over` frames outside, at the end `edge`; `out` is +1 after the last key, -1 before the first. */
  const beyond = (how: Beyond, frame: number, out: 1 | -1): Value => {
    const edge = out > 0 ? last : first;
    switch (how) {
      case 'hold':
        return edge.value;
      case 'cycle': {
        const turn = (((frame - first.frame) % length) + length) % length;
        return within(first.frame + turn);
      }
      case 'pingpong': {
        const turn = (((frame - first.frame) % (2 * length)) + 2 * length) % (2 * length);
        return within(first.frame + Math.min(turn, 2 * length - turn));
      }
      case 'continue': {
        // The tangent at the edge, from a hundredth of a frame within.
        const inner = within(edge.frame - out * 0.01);
        const slope = movedBy(kind, edge.value, inner, edge.value);
        return mix(edge.value, slope, Math.abs(frame - edge.frame) / 0.01);
      }
    }
  };

  return {
    constant: false,
    at: (frame) => {
      if (frame < first.frame) return beyond(property.before ?? 'hold', frame, -1);
      if (frame >= last.frame) return frame === last.frame ? last.value : beyond(property.after ?? 'hold', frame, 1);
      return within(frame);
    },
  };
};

const samplers = new WeakMap<Property, Sampler>();
const defaults = new WeakMap<Param, Sampler>();

const remembered = <K extends object>(map: WeakMap<K, Sampler>, key: K, make: () => Sampler): Sampler => {
  let sampler = map.get(key);
  if (!sampler) map.set(key, (sampler = make()));
  return sampler;
};

/** The sampler of a property, built once for each property object; a missing property has its default. */
export const samplerOf = (param: Param, property: Property | undefined): Sampler => {
  if (!property) return remembered(defaults, param, () => still(param.default));
  return remembered(samplers, property, () =>
    isKeyed(property) ? keyed(param.kind, property) : still(property.value),
  );
};
