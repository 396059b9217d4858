/** Edits to chosen keyframes, on one property or on many. */
import { type Edit, together } from '../document/patches';
import {
  type Ease,
  isApart,
  isKeyed,
  type KeyedProperty,
  type Keyframe,
  type PathHandles,
  type Project,
  type Property,
  type PropertyRef,
  type Scene,
  type Value,
} from '../document/types';
import {
  withCopiedKeys,
  withEase,
  withHandles,
  withKeyMoved,
  withKeysAt,
  withoutKeys,
  withPastedKeys,
  withReversedKeys,
} from '../motion/keys';
import { withKeyInserted } from '../motion/insert';
import { smoothHandles } from '../motion/smooth';
import { sceneIn } from './find';
import { keyedCurvesOf, paramIn, propertiesOf, propertyIn } from '../properties/find';
import { slideEnds } from './moves';
import { change, describe, keyedOr } from './properties';

/** A choice of keyframes: the frames of each property. */
export interface KeyChoice {
  readonly ref: PropertyRef;
  readonly frames: readonly number[];
}

/** The first and the last frame of a choice. */
export const reachOf = (choices: readonly KeyChoice[]): readonly [first: number, last: number] => {
  const frames = choices.flatMap((c) => c.frames);
  return [Math.min(...frames), Math.max(...frames)];
};

/** The choice after its keyframes went elsewhere. */
export const choiceAt = (choices: readonly KeyChoice[], to: (frame: number) => number): KeyChoice[] =>
  choices.map((c) => ({ ...c, frames: [...new Set(c.frames.map(to))] }));

/** A keyframe with the value that the property has there; what moves goes on moving as it did. */
export const addKey = (ref: PropertyRef, frame: number): Edit => ({
  label: 'Add a keyframe',
  change: (draft) => {
    const param = describe(draft, ref);
    change(draft, ref, (property) => withKeyInserted(param, property, frame));
  },
});

/** A keyframe on each of these properties with the value that it has there. */
export const addKeys = (refs: readonly PropertyRef[], frame: number): Edit =>
  together(
    'Add keyframes',
    refs.map((ref) => addKey(ref, frame)),
  );

const onKeys = (
  label: string,
  choices: readonly KeyChoice[],
  how: (property: KeyedProperty, frames: ReadonlySet<number>) => Property,
): Edit => ({
  label,
  change: (draft) => {
    for (const { ref, frames } of choices) {
      change(draft, ref, (property) => how(keyedOr(property, ref), new Set(frames)));
    }
  },
});

export const removeKeys = (choices: readonly KeyChoice[]): Edit => onKeys('Delete keyframes', choices, withoutKeys);

/** Moves keyframes in time; a move whose end is among them takes all of that end along, and leaves its other end. */
export const moveKeys = (choices: readonly KeyChoice[], by: number): Edit => ({
  label: 'Move keyframes',
  change: (draft) => {
    const own = slideEnds(draft, choices, by);
    onKeys('', own, (property, frames) => withKeysAt(property, frames, (f) => f + by)).change(draft);
  },
});

export const copyKeys = (choices: readonly KeyChoice[], by: number): Edit =>
  onKeys('Copy keyframes', choices, (property, frames) => withCopiedKeys(property, frames, by));

/** Where a frame goes when the stretch from `fixed` to `edge` is made to reach `to` instead of `edge`. */
export const stretchedTo =
  (fixed: number, edge: number, to: number) =>
  (frame: number): number =>
    edge === fixed ? frame : Math.round(fixed + ((frame - fixed) * (to - fixed)) / (edge - fixed));

/** All in proportion: what stood at `edge` stands at `to`, what stood at `fixed` stays. */
export const stretchKeys = (choices: readonly KeyChoice[], fixed: number, edge: number, to: number): Edit =>
  onKeys('Stretch keyframes', choices, (property, frames) =>
    withKeysAt(property, frames, stretchedTo(fixed, edge, to)),
  );

export const reverseKeys = (choices: readonly KeyChoice[]): Edit => {
  const [from, to] = reachOf(choices);
  return onKeys('Reverse keyframes', choices, (property, frames) => withReversedKeys(property, frames, from, to));
};

export const setEase = (choices: readonly KeyChoice[], ease: Ease): Edit =>
  onKeys('Change an ease', choices, (property, frames) => withEase(property, frames, ease));

/** Another frame or value for one keyframe, typed in. */
export const changeKey = (
  ref: PropertyRef,
  frame: number,
  to: { readonly frame?: number; readonly value?: Value },
): Edit => onKeys('Change a keyframe', [{ ref, frames: [frame] }], (property) => withKeyMoved(property, frame, to));

/** The first keyframe of each property again on the last frame of its scene, so that what loops ends as it began. */
export const repeatFirstKeys = (refs: readonly PropertyRef[]): Edit => ({
  label: 'Repeat the first keys at the end',
  change: (draft) => {
    for (const ref of refs) {
      const frame = sceneIn(draft, ref.scene).length - 1;
      change(draft, ref, (property) => {
        const keyed = keyedOr(property, ref);
        const first = keyed.keys[0] as Keyframe;
        return withPastedKeys(keyed, [{ ...first, frame }]);
      });
    }
  },
});

/** Keyframes as they were copied: of which property, and when, counted from the first of them all. */
export interface CopiedKeys {
  readonly item?: string;
  readonly key: string;
  readonly part?: 0 | 1;
  /** Of the card, so that keyframes find a card like theirs on another layer. */
  readonly card?: string;
  readonly keys: readonly Keyframe[];
}

/** Layer by layer in the order of the scenes and of their lists. */
export const copiedKeys = (doc: Project, choices: readonly KeyChoice[]): { layer: string; curves: CopiedKeys[] }[] => {
  const [first] = reachOf(choices);
  const layers = doc.order.flatMap((scene) => (doc.scenes[scene]?.order ?? []).map((layer) => ({ scene, layer })));
  const mine = layers.map(({ scene, layer }) => ({
    layer,
    curves: choices
      .filter((c) => c.ref.layer === layer && c.ref.scene === scene)
      .flatMap(({ ref, frames }) => {
        const owner = doc.scenes[scene]?.layers[layer];
        const property = propertyIn(owner, ref);
        if (!isKeyed(property)) return [];
        const wanted = new Set(frames);
        const card = owner?.kind === 'drawing' && ref.item !== undefined ? owner.items[ref.item]?.kind : undefined;
        return [
          {
            key: ref.key,
            ...(ref.item !== undefined && { item: ref.item }),
            ...(ref.part !== undefined && { part: ref.part }),
            ...(card !== undefined && { card }),
            keys: property.keys.filter((k) => wanted.has(k.frame)).map((k) => ({ ...k, frame: k.frame - first })),
          },
        ];
      }),
  }));
  return mine.filter((copied) => copied.curves.length > 0);
};

/** Where copied keyframes go on a layer: the same property, of the same card or of the first of its kind. */
const targetOf = (scene: Scene, layerId: string, copied: CopiedKeys): PropertyRef | null => {
  const layer = scene.layers[layerId];
  if (!layer) return null;
  const refs = propertiesOf(scene.id, layer).filter((ref) => ref.key === copied.key);
  const same = refs.find((ref) => ref.item === copied.item);
  const alike =
    layer.kind === 'drawing' && copied.card !== undefined
      ? refs.find((ref) => ref.item !== undefined && layer.items[ref.item]?.kind === copied.card)
      : undefined;
  const ref = same ?? alike;
  if (!ref) return null;
  // Of a point whose parts are apart one part is pasted into, of one that is whole the whole.
  const apart = isApart(propertyIn(layer, ref));
  if (apart !== (copied.part !== undefined)) return null;
  return copied.part === undefined ? ref : { ...ref, part: copied.part };
};

export interface PastedKeys {
  readonly edit: Edit;
  readonly choices: readonly KeyChoice[];
  /** How many curves found no place. */
  readonly left: number;
}

/**
 * Pastes keyframes at a frame: one layer's onto every layer given, several layers' onto as many in the same order.
 */
export const pasteKeys = (
  scene: Scene,
  copied: readonly { readonly curves: readonly CopiedKeys[] }[],
  onto: readonly string[],
  frame: number,
): PastedKeys => {
  let left = 0;
  const pastes = onto.flatMap((layer, i) => {
    const curves = (copied.length === 1 ? copied[0] : copied[i])?.curves ?? [];
    return curves.flatMap((curve) => {
      const ref = targetOf(scene, layer, curve);
      const fits = ref && paramIn(scene.layers[layer], ref);
      if (!ref || !fits) {
        left++;
        return [];
      }
      return [{ ref, keys: curve.keys.map((k) => ({ ...k, frame: k.frame + frame })) }];
    });
  });
  return {
    left,
    choices: pastes.map(({ ref, keys }) => ({ ref, frames: keys.map((k) => k.frame) })),
    edit: {
      label: 'Paste keyframes',
      change: (draft) => {
        for (const { ref, keys } of pastes) change(draft, ref, (property) => withPastedKeys(property, keys));
      },
    },
  };
};

/** Motion-path handles of one keyframe; null makes its ways straight. */
export const setHandles = (ref: PropertyRef, frame: number, handles: PathHandles | null): Edit =>
  onKeys('Bend a motion path', [{ ref, frames: [frame] }], (property) => withHandles(property, frame, handles));

/** Chosen keyframes of points with smooth ways through them, or with straight ones. */
export const setSmooth = (choices: readonly KeyChoice[], smooth: boolean): Edit =>
  onKeys(smooth ? 'Smooth a motion path' : 'Straighten a motion path', choices, (property, frames) =>
    [...frames].reduce(
      (now, frame) => withHandles(now, frame, smooth ? smoothHandles(property, frame) : null),
      property,
    ),
  );

/** One pace along the whole motion path, under the ease of its first keyframe. */
export const setEven = (ref: PropertyRef, even: boolean): Edit => ({
  label: even ? 'One pace along the path' : 'A pace for each span',
  change: (draft) =>
    change(draft, ref, (property) => {
      const { even: _before, ...keyed } = keyedOr(property, ref);
      return even ? { ...keyed, even } : keyed;
    }),
});

/** Makes the span that starts at a frame turn so many times; what comes later turns along. */
export const spin = (ref: PropertyRef, frame: number, turns: number): Edit =>
  onKeys('Spin', [{ ref, frames: [frame] }], (property) => {
    const i = property.keys.findIndex((k) => k.frame === frame);
    const [from, to] = [property.keys[i], property.keys[i + 1]];
    if (!from || !to) return property;
    const by = (from.value as number) + turns * 360 - (to.value as number);
    return { ...property, keys: property.keys.map((k, n) => (n > i ? { ...k, value: (k.value as number) + by } : k)) };
  });

/** The frames at which a flash changes. */
export const flashFrames = (frames: number, from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, Math.ceil((to - from) / frames)) }, (_, n) => from + n * frames);

/**
 * Hold keys that go round a list of values, each for so many frames, from one frame up to another. What is before and after them
 * stays as it was.
 */
export const flash = (ref: PropertyRef, values: readonly Value[], frames: number, from: number, to: number): Edit => ({
  label: 'Flash',
  change: (draft) => {
    const param = describe(draft, ref);
    change(draft, ref, (property) => {
      const hold = { kind: 'hold' } as const;
      const keys = flashFrames(frames, from, to).map((frame, n): Keyframe => ({
        frame,
        value: values[n % values.length] as Value,
        ease: hold,
      }));
      const ends = from > 0 ? [from - 1, to] : [to];
      const around = ends.reduce<Property | undefined>((now, frame) => withKeyInserted(param, now, frame), property);
      const under = isKeyed(around) ? around.keys.filter((k) => k.frame < from || k.frame >= to) : [];
      const held = under.map((k) => (k.frame === from - 1 ? { ...k, ease: hold } : k));
      return withPastedKeys(isKeyed(property) ? { ...property, keys: held } : { keys: held }, keys);
    });
  },
});

/** Every keyframe of some layers, as a choice. */
export const keysOfLayers = (scene: Scene, ids: readonly string[]): KeyChoice[] =>
  ids.flatMap((id) => {
    const layer = scene.layers[id];
    return layer
      ? keyedCurvesOf(scene.id, layer).flatMap((ref) => {
          const property = propertyIn(layer, ref);
          return isKeyed(property) ? [{ ref, frames: property.keys.map((k) => k.frame) }] : [];
        })
      : [];
  });
