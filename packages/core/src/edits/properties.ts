/** Edits to properties and their keyframes. */
import type { Edit, ProjectDraft } from '../document/patches';
import {
  type Beyond,
  type Ease,
  isKeyed,
  type KeyedProperty,
  type Property,
  type PropertyRef,
  type Value,
} from '../document/types';
import { withEase, withKey, withMovedKeys, withoutKeys, withValue, type Writing } from '../motion/keys';
import { samplerOf } from '../motion/sampler';
import { holderOf, NotFound, paramAt } from './find';

/** A choice of keyframes: the frames of each property. */
export interface KeyChoice {
  readonly ref: PropertyRef;
  readonly frames: readonly number[];
}

const change = (draft: ProjectDraft, ref: PropertyRef, how: (property: Property | undefined) => Property): void => {
  const { params } = holderOf(draft, ref);
  // A copy apart from the draft, so that what the property's functions build holds no proxies.
  const now = params[ref.key] && (JSON.parse(JSON.stringify(params[ref.key])) as Property);
  params[ref.key] = how(now) as (typeof params)[string];
};

const describe = (draft: ProjectDraft, ref: PropertyRef) => {
  const param = paramAt(draft, ref);
  if (!param) throw new NotFound('property', ref.key);
  return param;
};

export const setValue = (ref: PropertyRef, value: Value, how: Writing): Edit => ({
  label: 'Change a value',
  change: (draft) => {
    const param = describe(draft, ref);
    change(draft, ref, (property) => withValue(param, property, value, how));
  },
});

/** A keyframe with the value that the property has there. */
export const addKey = (ref: PropertyRef, frame: number): Edit => ({
  label: 'Add a keyframe',
  change: (draft) => {
    const param = describe(draft, ref);
    change(draft, ref, (property) => withKey(property, frame, samplerOf(param, property).at(frame)));
  },
});

const onKeys = (
  label: string,
  choices: readonly KeyChoice[],
  how: (property: KeyedProperty, frames: ReadonlySet<number>) => Property,
): Edit => ({
  label,
  change: (draft) => {
    for (const { ref, frames } of choices) {
      change(draft, ref, (property) => {
        if (!isKeyed(property)) throw new NotFound('keyframe on', ref.key);
        return how(property, new Set(frames));
      });
    }
  },
});

export const removeKeys = (choices: readonly KeyChoice[]): Edit => onKeys('Delete keyframes', choices, withoutKeys);

export const moveKeys = (choices: readonly KeyChoice[], by: number): Edit =>
  onKeys('Move keyframes', choices, (property, frames) => withMovedKeys(property, frames, by));

export const setEase = (choices: readonly KeyChoice[], ease: Ease): Edit =>
  onKeys('Change an ease', choices, (property, frames) => withEase(property, frames, ease));

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
  change: (draft) =>
    change(draft, ref, (property) => {
      if (!isKeyed(property)) throw new NotFound('keyframe on', ref.key);
      return { ...property, [end]: how };
    }),
});

/** Keyframes set by value, for building a document in code. */
export const animate = (
  ref: PropertyRef,
  keys: readonly (readonly [frame: number, value: Value, ease?: Ease])[],
): Edit => ({
  label: 'Animate',
  change: (draft) => {
    for (const [frame, value, ease] of keys) {
      change(draft, ref, (property) => {
        const keyed = withKey(property, frame, value);
        return ease ? withEase(keyed, new Set([frame]), ease) : keyed;
      });
    }
  },
});

export const sameRef = (a: PropertyRef, b: PropertyRef): boolean =>
  a.scene === b.scene && a.layer === b.layer && a.item === b.item && a.key === b.key;

/** A text that stands for a reference, to keep it in sets and maps. */
export const refKey = (ref: PropertyRef): string => [ref.layer, ref.item ?? '', ref.key].join('/');
