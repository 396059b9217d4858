/** Poses: what a scene shows at a frame, read off it, compared, and shown again. */
import { isEqual } from '../document/is';
import type { Param } from '../document/params';
import type { LayerPose, PosedValues, ScenePose } from '../document/poses';
import type { Formulas, Id, Layer, Property, PropertyRef, Scene, Value } from '../document/types';
import { kindOfValue } from '../motion/kinds/table';
import { samplerOf } from '../motion/sampler';
import { paramIn, partOf, propertiesOf, propertyIn } from '../properties/find';
import { isShown } from '../scene/groups';

/** Words are those of the scene in all of its poses; what a thing is is no matter of how it shows. */
const isPosed = (param: Param): boolean =>
  !param.still && !(param.kind === 'number' && param.clock) && param.kind !== 'text' && param.kind !== 'font';

const isComputed = (formulas: Formulas | undefined, key: string): boolean =>
  [key, `${key}.x`, `${key}.y`].some((own) => formulas?.[own]?.on === true);

/** What poses are about, with its description. */
export interface PosedProperty {
  readonly ref: PropertyRef;
  readonly param: Param;
}
type Posable = { readonly params: Layer['params'] };

/** The properties of a layer that poses are about. */
export const posedOf = (scene: Id, layer: Layer): PosedProperty[] =>
  propertiesOf(scene, layer).flatMap((ref) => {
    const param = paramIn(layer, ref);
    const { formulas } = (ref.item === undefined ? layer : partOf(layer, ref.item)) ?? {};
    return param && isPosed(param) && !isComputed(formulas, ref.key) ? [{ ref, param }] : [];
  });

/** What layers show at a frame; one that is not there, or hidden, has no opacity. */
export const posedAt = (scene: Scene, frame: number): ScenePose['layers'] =>
  Object.fromEntries(
    scene.order.flatMap((id): [Id, LayerPose][] => {
      const layer = scene.layers[id];
      if (!layer) return [];
      const own: Record<string, Value> = {};
      const parts: Record<Id, Record<string, Value>> = {};
      for (const { ref, param } of posedOf(scene.id, layer)) {
        const values = ref.item === undefined ? own : (parts[ref.item] ??= {});
        const property = propertyIn(layer, ref);
        const value = property ? samplerOf(param, property).at(frame) : param.default;
        if (!isEqual(value, param.default)) values[ref.key] = value;
      }
      if (!isShown(scene, layer, frame)) own.opacity = 0;
      return [[id, { own, parts }]];
    }),
  );

type ChangedValues = ReadonlyMap<string, Value | undefined>;
/** What is otherwise: of each layer, and of its parts, the values by key; undefined for what has its default. */
export type PoseChanges = ReadonlyMap<
  Id,
  { readonly own: ChangedValues; readonly parts: ReadonlyMap<Id, ChangedValues> }
>;

const UNKNOWN: LayerPose = { own: {}, parts: {} };

const changedValues = (from: PosedValues, to: PosedValues): ChangedValues =>
  new Map(
    [...new Set([...Object.keys(from), ...Object.keys(to)])]
      .filter((key) => !isEqual(from[key], to[key]))
      .map((key) => [key, to[key]]),
  );

/** What is shown otherwise than a pose has it, with what it does not know. */
export const changesOf = (pose: ScenePose, shown: ScenePose['layers']): PoseChanges =>
  new Map(
    Object.entries(shown).flatMap(([id, now]) => {
      const then = pose.layers[id] ?? UNKNOWN;
      const own = changedValues(then.own, now.own);
      const parts = Object.entries(now.parts)
        .map(([part, values]) => [part, changedValues(then.parts[part] ?? {}, values)] as const)
        .filter(([part, values]) => values.size > 0 || !then.parts[part]);
      const same = then !== UNKNOWN && own.size === 0 && parts.length === 0;
      return same ? [] : [[id, { own, parts: new Map(parts) }] as const];
    }),
  );

const changed = (values: PosedValues, changes: ChangedValues): PosedValues => {
  const next = new Map<string, Value | undefined>([...Object.entries(values), ...changes]);
  return Object.fromEntries([...next].filter((entry): entry is [string, Value] => entry[1] !== undefined));
};

/** A pose with changes, its own or another one's. */
export const withChanges = (pose: ScenePose, changes: PoseChanges): ScenePose => {
  const layers = [...changes].map(([id, change]): [Id, LayerPose] => {
    const then = pose.layers[id] ?? UNKNOWN;
    const parts = [...change.parts].map(([part, values]) => [part, changed(then.parts[part] ?? {}, values)] as const);
    return [id, { own: changed(then.own, change.own), parts: { ...then.parts, ...Object.fromEntries(parts) } }];
  });
  return { ...pose, layers: { ...pose.layers, ...Object.fromEntries(layers) } };
};

/** The value of a property in a pose; null where the pose does not know it, or not as this. */
export const valueIn = (pose: ScenePose | undefined, ref: PropertyRef, param: Param): Value | null => {
  const layer = pose?.layers[ref.layer];
  const values = ref.item === undefined ? layer?.own : layer?.parts[ref.item];
  if (!values) return null;
  const value = values[ref.key] ?? param.default;
  const kind = kindOfValue(param.kind);
  return kind.is(param, value) ? value : null;
};

export const showsIn = (pose: ScenePose | undefined, layer: Id): boolean => {
  const own = pose?.layers[layer]?.own;
  return own !== undefined && own.opacity !== 0;
};

/** A property with the value that it has in a pose. */
export interface PosedValue extends PosedProperty {
  readonly value: Value;
}

/** What a pose knows of a layer. */
export const posedValues = (scene: Id, pose: ScenePose, layer: Layer): PosedValue[] =>
  posedOf(scene, layer).flatMap((one) => {
    const value = valueIn(pose, one.ref, one.param);
    return value === null ? [] : [{ ...one, value }];
  });

/** A layer as a pose has it, at rest. */
const layerInPose = (scene: Id, pose: ScenePose, layer: Layer): Layer => {
  const params = new Map<Id | undefined, Record<string, Property>>();
  for (const { ref, value } of posedValues(scene, pose, layer)) {
    const own = params.get(ref.item) ?? {};
    own[ref.key] = { value };
    params.set(ref.item, own);
  }
  const posed = <T extends Posable>(holder: T, item?: Id): T => ({
    ...holder,
    params: { ...holder.params, ...params.get(item) },
  });
  const parts = <T extends Posable>(map: { readonly [id: Id]: T }): { readonly [id: Id]: T } =>
    Object.fromEntries(Object.entries(map).map(([id, part]) => [id, posed(part, id)]));
  // It shows so at the frame of its pose.
  const there = { hidden: false, from: Math.min(layer.from, pose.frame), to: Math.max(layer.to, pose.frame + 1) };
  const own = { ...posed(layer), ...(showsIn(pose, layer.id) && there) };
  return own.kind === 'controller' ? { ...own, knobs: parts(own.knobs) } : { ...own, items: parts(own.items) };
};

/** A scene as one of its poses has it, to be looked at, at the frame of that. */
export const inPose = (scene: Scene, pose: ScenePose): Scene => ({
  ...scene,
  layers: Object.fromEntries(
    Object.values(scene.layers).map((layer) => [layer.id, layerInPose(scene.id, pose, layer)]),
  ),
});

/** A layer of a pose for its copy, whose cards and knobs are others in the same order. */
export const posedLike = (pose: LayerPose, layer: Layer, copy: Layer): LayerPose => {
  const idsOf = (of: Layer) => (of.kind === 'drawing' ? Object.keys(of.items) : of.panel);
  const copies = idsOf(copy);
  const to = new Map(idsOf(layer).map((id, i) => [id, copies[i] ?? id]));
  const parts = Object.entries(pose.parts).map(([id, values]) => [to.get(id) ?? id, values] as const);
  return { ...pose, parts: Object.fromEntries(parts) };
};
