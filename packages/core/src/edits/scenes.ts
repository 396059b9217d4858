/** Edits to a project and its scenes. */
import { movedTo } from '../document/lists';
import { type SceneSize, newScene, uniqueName } from '../document/make';
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import type { Assets, Id, Layer, PropertyRef, Scene } from '../document/types';
import { needsOf } from '../recipe/needs';
import { sceneIn } from './find';

export const renameProject = (name: string): Edit => ({
  label: 'Rename the project',
  change: (draft) => {
    draft.name = name;
  },
});

const names = (draft: ProjectDraft): string[] => draft.order.map((id) => sceneIn(draft, id).name);

const insert = (draft: ProjectDraft, scene: Scene, after: Id | undefined): void => {
  draft.scenes[scene.id] = scene as ProjectDraft['scenes'][string];
  const at = after === undefined ? draft.order.length : draft.order.indexOf(after) + 1;
  draft.order = [...draft.order.slice(0, at), scene.id, ...draft.order.slice(at)];
};

export const addScene = (id: Id, name: string, size: SceneSize, after?: Id): Edit => ({
  label: 'New scene',
  change: (draft) => insert(draft, newScene(id, uniqueName(name, names(draft)), size), after),
});

/** Words of a scene that are in a column are so in a copy of it: its ids are the same. */
const varyCopy = ({ versions }: ProjectDraft, scene: Id, copy: Id): void => {
  for (const column of versions.columns) {
    if (column.kind !== 'words') continue;
    const more = plain<PropertyRef[]>(column.places).filter((place) => place.scene === scene);
    column.places.push(...more.map((place) => ({ ...place, scene: copy })));
  }
};

/** Ids within a scene are the scene's own, so a copy keeps them; its words differ from version to version as those of the scene do. */
export const duplicateScene = (id: Id, copy: Id): Edit => ({
  label: 'Duplicate a scene',
  change: (draft) => {
    const scene = plain<Scene>(sceneIn(draft, id));
    insert(draft, { ...scene, id: copy, name: uniqueName(scene.name, names(draft)) }, id);
    varyCopy(draft, id, copy);
  },
});

export const removeScene = (id: Id): Edit => ({
  label: 'Delete a scene',
  change: (draft) => {
    const { name } = sceneIn(draft, id);
    const user = Object.values(draft.scenes).find((s) =>
      Object.values(s.layers).some((layer) => needsOf(layer as Layer).scenes.has(id)),
    );
    if (user) throw new RangeError(`“${name}” is nested in “${user.name}”: delete its nest there first`);
    draft.order = draft.order.filter((other) => other !== id);
    delete draft.scenes[id];
  },
});

/** Scenes that were deleted, with the files that they draw on; what is there already stays as it is. */
export const bringBackScenes = (scenes: readonly Scene[], assets: Assets): Edit => ({
  label: scenes.length === 1 ? 'Bring a scene back' : 'Bring scenes back',
  change: (draft) => {
    for (const scene of scenes) {
      if (!draft.scenes[scene.id]) insert(draft, { ...scene, name: uniqueName(scene.name, names(draft)) }, undefined);
    }
    for (const asset of Object.values(assets)) draft.assets[asset.id] ??= asset as ProjectDraft['assets'][string];
  },
});

export const moveScene = (id: Id, to: number): Edit => ({
  label: 'Reorder scenes',
  change: (draft) => {
    draft.order = movedTo(draft.order, id, to);
  },
});

/** Places of guides, in pixels; each list is kept in order. */
export const setGuides = (id: Id, guides: Scene['guides']): Edit => ({
  label: 'Move a guide',
  change: (draft) => {
    sceneIn(draft, id).guides = { x: [...guides.x], y: [...guides.y] };
  },
});

type SceneFields = Partial<
  Pick<Scene, 'name' | 'width' | 'height' | 'rate' | 'length' | 'background' | 'poster' | 'eye' | 'light'>
>;

/** The layers that end with their scene: what a new length carries along. */
export const endingWith = (scene: Scene): Id[] =>
  Object.values(scene.layers)
    .filter((layer) => layer.to === scene.length)
    .map((layer) => layer.id);

/** Nests that are called by the scene that they play go on being so, with the number that tells them apart. */
const renameNests = (draft: ProjectDraft, id: Id, before: string, after: string): void => {
  for (const scene of Object.values(draft.scenes)) {
    for (const layer of Object.values(scene.layers)) {
      const number = layer.name.slice(before.length);
      if (!layer.name.startsWith(before) || !/^( \d+)?$/.test(number)) continue;
      if (needsOf(plain<Layer>(layer)).scenes.has(id)) layer.name = after + number;
    }
  }
};

/** A new length carries along the layers that ended with the scene. */
export const setScene = (id: Id, fields: SceneFields): Edit => ({
  label: fields.name === undefined ? 'Change the scene' : 'Rename a scene',
  change: (draft) => {
    const scene = sceneIn(draft, id);
    const { length, name } = scene;
    Object.assign(scene, fields);
    if (fields.name !== undefined) renameNests(draft, id, name, scene.name);
    if (scene.length === length) return;
    for (const layer of Object.values(scene.layers)) {
      if (layer.to === length) layer.to = Math.max(layer.from + 1, scene.length);
    }
    scene.poster = Math.min(scene.poster, scene.length - 1);
  },
});
