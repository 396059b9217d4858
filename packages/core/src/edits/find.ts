/** Finding things in a document by id, with errors that say what is missing. */
import type { ProjectDraft } from '../document/patches';
import type { Id, Layer, Project, PropertyRef, Scene } from '../document/types';
import { type Params, PLACE } from '../document/params';
import { paramsIn, partOf } from '../properties/find';

/** Something that an edit is made on is not there: the edit cannot be made. */
export class NotFound extends RangeError {
  constructor(what: string, id: Id) {
    super(`there is no ${what} "${id}"`);
    this.name = 'NotFound';
  }
}

export type SceneDraft = ProjectDraft['scenes'][string];
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

export type ControllerDraft = Extract<LayerDraft, { kind: 'controller' }>;
export type KnobDraft = ControllerDraft['knobs'][string];

export const controllerIn = (doc: ProjectDraft, scene: Id, id: Id): ControllerDraft => {
  const layer = layerIn(sceneIn(doc, scene), id);
  if (layer.kind !== 'controller') throw new NotFound('controller', id);
  return layer;
};

/** What holds a property: a layer, one of its cards or one of its knobs. */
export const holderOf = (doc: ProjectDraft, ref: PropertyRef): LayerDraft | ItemDraft | KnobDraft => {
  const layer = layerIn(sceneIn(doc, ref.scene), ref.layer);
  if (ref.item === undefined) return layer;
  const part = partOf(layer, ref.item);
  if (!part) throw new NotFound(layer.kind === 'controller' ? 'knob' : 'card', ref.item);
  return part as ItemDraft | KnobDraft;
};

/** What has properties on a layer, itself, its cards or its knobs, and what they are. */
export const holdersOf = (
  layer: LayerDraft,
): [holder: { params: LayerDraft['params'] }, params: Params, item?: Id][] => {
  const parts =
    layer.kind === 'drawing'
      ? Object.values(layer.items)
      : Object.values(layer.kind === 'controller' ? layer.knobs : {});
  return [
    [layer, PLACE],
    ...parts.map((part) => [part, paramsIn(layer, part.id), part.id] satisfies [object, Params, Id]),
  ];
};
