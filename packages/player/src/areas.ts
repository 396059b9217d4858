/** Areas of a banner that lead to pages of their own. */
import type { Id } from '@kite/core/document/types';
import { layerBoxInScene } from '@kite/core/scene/bounds';
import { isShown } from '@kite/core/scene/groups';
import type { Program } from '@kite/core/scene/program';
import { leadsTo } from './leads';

/** A layer that leads to a page of its own: the first to `clickTag1`. */
export interface Area {
  readonly layer: Id;
  readonly name: string;
}

/** Lays links over the layers that are areas of a banner so many times as large as its scene, and gives what moves them along. */
export const layAreas = (areas: readonly Area[], program: Program, size: number, stage: HTMLElement) => {
  const links = areas.map(({ name }, i) => {
    const link = document.createElement('a');
    link.href = 'javascript:void(0)';
    link.ariaLabel = name;
    leadsTo(link, `clickTag${i + 1}`);
    stage.append(link);
    return link;
  });
  const { scene } = program;
  return (frame: number): void =>
    areas.forEach(({ layer: id }, i) => {
      const layer = scene.layers[id];
      const box = layer && isShown(scene, layer, Math.floor(frame)) ? layerBoxInScene(program, id, frame) : null;
      const { style } = links[i] as HTMLElement;
      style.display = box ? 'block' : 'none';
      if (!box) return;
      style.left = `${box.left * size}px`;
      style.top = `${box.top * size}px`;
      style.width = `${(box.right - box.left) * size}px`;
      style.height = `${(box.bottom - box.top) * size}px`;
    });
};
