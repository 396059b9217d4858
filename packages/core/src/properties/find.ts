/** Finding the properties of a document: their descriptions and their values, by reference. */
import { paramsOfKnob } from '../document/knobs';
import { type Param, type Params, PLACE } from '../document/params';
import type { ProjectDraft } from '../document/patches';
import {
  type Id,
  isApart,
  isKeyed,
  type Item,
  type Knob,
  type Layer,
  type Project,
  type Property,
  type PropertyRef,
} from '../document/types';
import { remembered } from '../document/remembered';
import { partParam } from '../motion/apart';
import { keyFrames } from '../motion/keys';
import { paramsOf } from '../recipe/table';

type LayerDraft = ProjectDraft['scenes'][string]['layers'][string];

/** A card or a knob of a layer. */
export const partOf = (layer: Layer | LayerDraft | undefined, id: Id): Item | Knob | undefined =>
  (layer?.kind === 'drawing' ? layer.items[id] : layer?.kind === 'controller' ? layer.knobs[id] : undefined) as
    Item | Knob | undefined;

/** The descriptions of the parameters of a layer, or of a part of it. */
export const paramsIn = (layer: Layer | LayerDraft, item: Id | undefined): Params => {
  if (item === undefined) return PLACE;
  const part = partOf(layer, item);
  if (!part) return {};
  return layer.kind === 'controller' ? paramsOfKnob(part as Knob) : paramsOf(part.kind);
};

/** The description of a property of a layer, or of one part of it; undefined where the reference leads nowhere. */
export const paramIn = (layer: Layer | LayerDraft | undefined, ref: PropertyRef): Param | undefined => {
  const param = layer && paramsIn(layer, ref.item)[ref.key];
  return param?.kind === 'point' && ref.part !== undefined ? partParam(param, ref.part) : param;
};

export const paramAt = (doc: Project | ProjectDraft, ref: PropertyRef): Param | null =>
  paramIn(doc.scenes[ref.scene]?.layers[ref.layer], ref) ?? null;

/** The property itself, on a layer or a part of it; undefined where it has its default. */
export const propertyIn = (layer: Layer | undefined, ref: PropertyRef): Property | undefined => {
  const property = (ref.item === undefined ? layer : partOf(layer, ref.item))?.params[ref.key];
  if (ref.part === undefined) return property;
  return isApart(property) ? property.parts[ref.part] : undefined;
};

export const propertyAt = (doc: Project, ref: PropertyRef): Property | undefined =>
  propertyIn(doc.scenes[ref.scene]?.layers[ref.layer], ref);

/** A reference to a property, or to both its parts where they are apart. */
export const curvesAt = (layer: Layer | undefined, ref: PropertyRef): readonly PropertyRef[] =>
  isApart(propertyIn(layer, ref))
    ? [
        { ...ref, part: 0 },
        { ...ref, part: 1 },
      ]
    : [ref];

/** Every curve of a layer, animated or not: a property, or a part of one whose parts are apart. */
export const curvesOf = (scene: Id, layer: Layer): readonly PropertyRef[] =>
  propertiesOf(scene, layer).flatMap((ref) => curvesAt(layer, ref));

/** The curves of a layer that have keyframes. */
export const keyedCurvesOf = (scene: Id, layer: Layer): readonly PropertyRef[] =>
  curvesOf(scene, layer).filter((ref) => isKeyed(propertyIn(layer, ref)));

/** Every property of a layer: its place, then its cards in the order in which they work, or its knobs. */
export const propertiesOf = (scene: Id, layer: Layer): readonly PropertyRef[] => {
  const refs: PropertyRef[] = Object.keys(PLACE).map((key) => ({ scene, layer: layer.id, key }));
  if (layer.kind === 'controller') {
    return [...refs, ...layer.panel.map((item) => ({ scene, layer: layer.id, item, key: 'value' }))];
  }
  if (layer.kind !== 'drawing') return refs;
  const walk = (ids: readonly Id[]): void => {
    for (const id of ids) {
      const item = layer.items[id];
      if (!item) continue;
      for (const key of Object.keys(paramsOf(item.kind))) refs.push({ scene, layer: layer.id, item: id, key });
      if (item.children) walk(item.children);
    }
  };
  walk(layer.recipe);
  return refs;
};

/** A text that stands for a reference, to keep it in sets and maps. */
export const refKey = (ref: PropertyRef): string =>
  [ref.scene, ref.layer, ref.item ?? '', ref.key, ...(ref.part === undefined ? [] : ['xy'.charAt(ref.part)])].join('/');

export const sameRef = (a: PropertyRef, b: PropertyRef): boolean =>
  a.scene === b.scene && a.layer === b.layer && a.item === b.item && a.key === b.key && a.part === b.part;

/** Where a layer has keyframes, each frame once. */
export const keyFramesOf = remembered((layer: Layer): readonly number[] => [
  ...new Set(keyedCurvesOf('', layer).flatMap((ref) => keyFrames(propertyIn(layer, ref)))),
]);
