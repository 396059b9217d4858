/** The whole check of a project from outside: its schema, then that all its references lead somewhere. */
import { FORMAT_VERSION } from '../document/make';
import { cycleFrom, sorted } from '../document/order';
import { cutInCircle } from '../scene/follows';
import { wouldRecurse } from '../scene/whole';
import type { Assets, Id, Item, Layer, Project, Scene } from '../document/types';
import { needsOf } from '../recipe/needs';
import { fits } from './fits';
import { Invalid, shown } from './problem';
import { layerRule, projectRule, sceneRule } from './schema';

const sameSet = (order: readonly Id[], map: object): boolean =>
  order.length === Object.keys(map).length && order.every((id) => Object.hasOwn(map, id));

/** Every card stands in exactly one place of the recipe, and no group in itself. */
const checkCards = (items: { readonly [id: Id]: Item }, recipe: readonly Id[], path: string): void => {
  const seen = new Set<Id>();
  const walk = (ids: readonly Id[]): void => {
    for (const id of ids) {
      const item = items[id];
      if (!item) throw new Invalid(`${path}.recipe: names a card "${id}" that is not there`, `${path}.recipe`);
      if (seen.has(id)) throw new Invalid(`${path}.recipe: card "${id}" stands in two places`, `${path}.recipe`);
      seen.add(id);
      walk(item.children ?? []);
    }
  };
  walk(recipe);
  const stray = Object.keys(items).find((id) => !seen.has(id));
  if (stray !== undefined)
    throw new Invalid(`${path}.items.${stray}: stands nowhere in the recipe`, `${path}.items.${stray}`);
};

/** Layers that passed, so that a save checks what it changed and nothing else. */
const passed = new WeakSet<Layer>();

const checkLayer = (layer: Layer, key: Id, path: string): void => {
  if (passed.has(layer)) return;
  fits(layerRule(layer), layer, path);
  if (layer.id !== key) throw new Invalid(`${path}.id: got "${layer.id}", wanted "${key}"`, `${path}.id`);
  if (layer.to <= layer.from) {
    throw new Invalid(`${path}.to: got ${layer.to}, wanted more than its first frame ${layer.from}`, `${path}.to`);
  }
  if (layer.kind === 'drawing') {
    const wrong = Object.keys(layer.items).find((id) => layer.items[id]?.id !== id);
    if (wrong !== undefined) throw new Invalid(`${path}.items.${wrong}.id: does not match its key`, `${path}.items`);
    checkCards(layer.items, layer.recipe, path);
  }
  if (layer.kind === 'controller' && !sameSet(layer.panel, layer.knobs)) {
    throw new Invalid(`${path}.panel: must name each of the knobs once`, `${path}.panel`);
  }
  passed.add(layer);
};

/** Parents are there, and no layer hangs from itself. */
const checkParents = (scene: Scene, path: string): void => {
  const layers = Object.values(scene.layers);
  const parents = new Map<Layer, Layer[]>();
  for (const layer of layers) {
    if (layer.parent === null) continue;
    const parent = scene.layers[layer.parent];
    const field = `${path}.layers.${layer.id}.parent`;
    if (!parent) throw new Invalid(`${field}: there is no layer "${layer.parent}"`, field);
    parents.set(layer, [parent]);
  }
  for (const layer of sorted(layers, parents).left) {
    const circle = cycleFrom(layer, (of) => parents.get(of) ?? []);
    if (!circle) continue;
    const names = [...circle, layer].map((l) => l.name).join(' → ');
    const field = `${path}.layers.${layer.id}.parent`;
    throw new Invalid(`${field}: layers are parents of each other: ${names}`, field);
  }
};

/** No layer is cut by itself. */
const checkMattes = (scene: Scene, path: string): void => {
  for (const layer of Object.values(scene.layers)) {
    const circle = cutInCircle(scene, layer);
    if (!circle) continue;
    const names = [...circle, layer].map((l) => l.name).join(' → ');
    const field = `${path}.layers.${layer.id}`;
    throw new Invalid(`${field}: layers cut each other: ${names}`, field);
  }
};

/** Sets name layers of the scene, and no layer is in two. */
const checkSets = (scene: Scene, path: string): void => {
  const seen = new Set<Id>();
  scene.sets.forEach(({ name, members, word }, i) => {
    const strange = word?.parts.find((id) => !members.includes(id));
    if (strange !== undefined) {
      const field = `${path}.sets[${i}].word.parts`;
      throw new Invalid(`${field}: “${name}” has no member "${strange}"`, field);
    }
    for (const id of members) {
      const field = `${path}.sets[${i}].members`;
      if (!scene.layers[id]) throw new Invalid(`${field}: there is no layer "${id}"`, field);
      if (seen.has(id)) throw new Invalid(`${field}: “${name}” names a layer that is in a set already: "${id}"`, field);
      seen.add(id);
    }
  });
};

const checkPictures = (scene: Scene, assets: Assets, path: string): void => {
  for (const layer of Object.values(scene.layers)) {
    const gone = [...needsOf(layer).assets].find((id) => assets[id]?.kind !== 'picture');
    if (gone === undefined) continue;
    const field = `${path}.layers.${layer.id}`;
    throw new Invalid(`${field}: shows a picture “${gone}” that is not there`, field);
  }
};

/** Scenes that passed, with the assets that they were checked against. */
const passedScenes = new WeakMap<Scene, Assets>();

const checkScene = (scene: Scene, key: Id, assets: Assets): void => {
  if (passedScenes.get(scene) === assets && scene.id === key) return;
  const path = `scenes.${key}`;
  fits(sceneRule, scene, path);
  if (scene.id !== key) throw new Invalid(`${path}.id: got "${scene.id}", wanted "${key}"`, `${path}.id`);
  if (!sameSet(scene.order, scene.layers)) {
    throw new Invalid(`${path}.order: must name each of the scene's layers once`, `${path}.order`);
  }
  for (const id of scene.order) checkLayer(scene.layers[id] as Layer, id, `${path}.layers.${id}`);
  checkParents(scene, path);
  checkMattes(scene, path);
  checkSets(scene, path);
  checkPictures(scene, assets, path);
  passedScenes.set(scene, assets);
};

/** Nests lead to scenes, and no scene plays itself. */
const checkNests = (project: Project): void => {
  for (const scene of Object.values(project.scenes)) {
    for (const layer of Object.values(scene.layers)) {
      const path = `scenes.${scene.id}.layers.${layer.id}`;
      for (const id of needsOf(layer).scenes) {
        if (!project.scenes[id]) throw new Invalid(`${path}: plays a scene “${id}” that is not there`, path);
        if (wouldRecurse(project.scenes, id, scene.id)) {
          throw new Invalid(`${path}: “${scene.name}” would play itself`, path);
        }
      }
    }
  }
};

/** Takes a project for checked that was checked by another thread, or before it was stored. */
export const vouchFor = (project: Project): Project => {
  for (const scene of Object.values(project.scenes)) {
    for (const layer of Object.values(scene.layers)) passed.add(layer);
    passedScenes.set(scene, project.assets);
  }
  return project;
};

/** The value as a project, or Invalid. */
export const checkProject = (value: unknown): Project => {
  fits(projectRule, value);
  const project = value as Project;
  if (project.version !== FORMAT_VERSION) {
    throw new Invalid(`version: got ${shown(project.version)}, wanted ${FORMAT_VERSION}`, 'version');
  }
  if (!sameSet(project.order, project.scenes)) throw new Invalid('order: must name each scene once', 'order');
  const wrong = Object.keys(project.assets).find((id) => project.assets[id]?.id !== id);
  if (wrong !== undefined) throw new Invalid(`assets.${wrong}.id: does not match its key`, `assets.${wrong}.id`);
  if (project.order.length === 0) throw new Invalid('order: a project has at least one scene', 'order');
  for (const id of project.order) checkScene(project.scenes[id] as Scene, id, project.assets);
  checkNests(project);
  return project;
};
