/** Edits to properties: their values, and whether and how they are animated. */
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import {
  type Beyond,
  isApart,
  isKeyed,
  type Ease,
  type KeyedProperty,
  type Property,
  type PropertyRef,
  type Value,
} from '../document/types';
import { withEase, withKey, withValue, type Writing } from '../motion/keys';
import { broughtTogether, takenApart } from '../motion/parting';
import { samplerOf } from '../motion/sampler';
import { holderOf, NotFound } from './find';
import { paramAt } from '../properties/find';

/** Changes a property, or one part of a point that is apart. */
export const change = (
  draft: ProjectDraft,
  ref: PropertyRef,
  how: (property: Property | undefined) => Property,
): void => {
  const { params } = holderOf(draft, ref);
  // A copy apart from the draft, so that what the property's functions build holds no proxies.
  const now = params[ref.key] && plain<Property>(params[ref.key]);
  if (ref.part === undefined) {
    params[ref.key] = how(now) as (typeof params)[string];
    return;
  }
  if (!isApart(now)) throw new NotFound('part of', ref.key);
  const parts = [...now.parts] as Property[];
  parts[ref.part] = how(now.parts[ref.part]);
  params[ref.key] = { parts } as unknown as (typeof params)[string];
};

export const describe = (draft: ProjectDraft, ref: PropertyRef) => {
  const param = paramAt(draft, ref);
  if (!param) throw new NotFound('property', ref.key);
  return param;
};

export const keyedOr = (property: Property | undefined, ref: PropertyRef): KeyedProperty => {
  if (!isKeyed(property)) throw new NotFound('keyframe on', ref.key);
  return property;
};

export const setValue = (ref: PropertyRef, value: Value, how: Writing): Edit => ({
  label: 'Change a value',
  change: (draft) => {
    const param = describe(draft, ref);
    change(draft, ref, (property) => withValue(param, property, value, how));
  },
});

/** Takes all keyframes away; the property keeps the value it had at a frame. */
export const removeAnimation = (ref: PropertyRef, frame: number): Edit => ({
  label: 'Remove animation',
  change: (draft) => {
    const param = describe(draft, ref);
    change(draft, ref, (property) => ({ value: samplerOf(param, property).at(frame) }));
  },
});

export const setBeyond = (ref: PropertyRef, end: 'before' | 'after', how: Beyond): Edit => ({
  label: end === 'after' ? 'After the last key' : 'Before the first key',
  change: (draft) => change(draft, ref, (property) => ({ ...keyedOr(property, ref), [end]: how })),
});

/** x and y of a point apart, or together as one point again; the motion stays. */
export const setApart = (ref: PropertyRef, apart: boolean): Edit => ({
  label: apart ? 'Take x and y apart' : 'Bring x and y together',
  change: (draft) => {
    const param = describe(draft, ref);
    if (param.kind !== 'point') throw new NotFound('point', ref.key);
    change(draft, ref, (property) => {
      if (apart) return takenApart(param, property);
      return isApart(property) ? broughtTogether(param, property) : (property ?? { value: param.default });
    });
  },
});

/** Keyframes set by value, for building a document in code. */
export const animate = (
  ref: PropertyRef,
  keys: readonly (readonly [frame: number, value: Value, ease?: Ease])[],
): Edit => ({
  label: 'Animate',
  change: (draft) => {
    const param = describe(draft, ref);
    for (const [frame, value, ease] of keys) {
      change(draft, ref, (property) => {
        const keyed = withKey(param, property, frame, value);
        return ease && isKeyed(keyed) ? withEase(keyed, new Set([frame]), ease) : keyed;
      });
    }
  },
});
