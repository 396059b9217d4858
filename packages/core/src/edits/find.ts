/** Finding things in a document by id, with errors that say what is missing. */
import { PLACE, type Param } from '../document/params';
import type { ProjectDraft } from '../document/patches';
import type { Id, Item, Layer, Project, Property, PropertyRef, Scene } from '../document/types';
import { paramsOf } from '../recipe/table';

export class NotFound extends Error {
  constructor(what: string, id: Id) {
    super(`there is no ${what} "${id}"`);
    this.name = 'NotFound';
  }
}

type SceneDraft = ProjectDraft['scenes'][string];
export type LayerDraft = SceneDraft['layers'][string];
export type ItemDraft = Extract<LayerDraft, { kind: 'drawing' }>['items'][string];
export type DrawingDraft = Extract<LayerDraft, { kind: 'drawing' }>;

export function sceneIn(doc: ProjectDraft, id: Id): SceneDraft;
export function sceneIn(doc: Project, id: Id): Scene;
export function sceneIn(doc: Project | ProjectDraft, id: Id): Scene | SceneDraft {
  const scene = doc.scenes[id];
  if (!scene) throw new NotFound('scene', id);
  return scene;
}

export function layerIn(scene: SceneDraft, id: Id): LayerDraft;
export function layerIn(scene: Scene, id: Id): Layer;
export function layerIn(scene: Scene | SceneDraft, id: Id): Layer | LayerDraft {
  const layer = scene.layers[id];
  if (!layer) throw new NotFound('layer', id);
  return layer;
}

export const drawingIn = (doc: ProjectDraft, scene: Id, id: Id): DrawingDraft => {
  const layer = layerIn(sceneIn(doc, scene), id);
  if (layer.kind !== 'drawing') throw new NotFound('drawing', id);
  return layer;
};

export const itemIn = (layer: DrawingDraft, id: Id): ItemDraft => {
  const item = layer.items[id];
  if (!item) throw new NotFound('card', id);
  return item;
};

/** What holds a property: a layer or one of its cards. */
export const holderOf = (doc: ProjectDraft, ref: PropertyRef): LayerDraft | ItemDraft => {
  if (ref.item === undefined) return layerIn(sceneIn(doc, ref.scene), ref.layer);
  return itemIn(drawingIn(doc, ref.scene, ref.layer), ref.item);
};

const cardOf = (layer: Layer | LayerDraft | undefined, id: Id): Item | ItemDraft | undefined =>
  layer?.kind === 'drawing' ? layer.items[id] : undefined;

/** The description of a property; null where the reference leads nowhere. */
export const paramAt = (doc: Project | ProjectDraft, ref: PropertyRef): Param | null => {
  const layer = doc.scenes[ref.scene]?.layers[ref.layer];
  if (!layer) return null;
  if (ref.item === undefined) return (PLACE as Record<string, Param>)[ref.key] ?? null;
  const item = cardOf(layer, ref.item);
  return item ? (paramsOf(item.kind)[ref.key] ?? null) : null;
};

/** The property itself; undefined where it has its default. */
export const propertyAt = (doc: Project, ref: PropertyRef): Property | undefined => {
  const layer = doc.scenes[ref.scene]?.layers[ref.layer];
  const holder = ref.item === undefined ? layer : (cardOf(layer, ref.item) as Item | undefined);
  return holder?.params[ref.key];
};

/** Every animated thing of a layer: its place, then its cards in the order in which they work. */
export const propertiesOf = (scene: Id, layer: Layer): readonly PropertyRef[] => {
  const refs: PropertyRef[] = Object.keys(PLACE).map((key) => ({ scene, layer: layer.id, key }));
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
