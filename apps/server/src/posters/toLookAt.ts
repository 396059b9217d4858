import type { Assets, Id, Project, Scene } from '@kite/core/document/types';
import { assetsWithin, wholeScene } from '@kite/core/scene/whole';

/** What is drawn for a project: its first scene with those that it nests, as JSON, and the assets that they show. */
export interface ToLookAt {
  readonly scene: string;
  readonly assets: Assets;
}

export const firstScene = (document: Project): Scene =>
  wholeScene(document.scenes[document.order[0] as Id] as Scene, document);

export const toLookAt = (document: Project): ToLookAt => {
  const scene = firstScene(document);
  return { scene: JSON.stringify(scene), assets: assetsWithin(scene, document.assets) };
};
