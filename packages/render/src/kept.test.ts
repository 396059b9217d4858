/** What is kept from frame to frame, and from edit to edit, changes no pixel. */
import type { Scene } from '@kite/core/document/types';
import { wholeScene } from '@kite/core/scene/whole';
import { demoProject } from '@kite/demo/project';
import { describe, expect, it } from 'vitest';
import { type FrameDrawer, frameDrawer } from './frames';
import { EMPTY_STOCK, type Materials, materialsFor } from './materials';

const doc = demoProject();
const scenes = doc.order.map((id) => wholeScene(doc.scenes[id] as Scene, doc));
/** Of each scene; 200 in all. */
const FRAMES = Math.ceil(200 / scenes.length);

/** At a third of its size. */
const drawerOf = (scene: Scene, materials: Materials): FrameDrawer => {
  const size = { width: Math.round(scene.width / 3), height: Math.round(scene.height / 3) };
  return frameDrawer(scene, materials, { ...size, drawn: size, under: null });
};
const pixelsAt = (drawer: FrameDrawer, frame: number): Buffer => {
  drawer.draw(frame);
  return Buffer.from(drawer.pixels());
};

/** The same scene as objects that nothing is kept for. */
const anew = (scene: Scene): Scene => structuredClone(scene);

/** The scene as it was one edit ago, with the same objects for most of it: every other layer hidden, or shown. */
const before = (scene: Scene): Scene => ({
  ...scene,
  layers: Object.fromEntries(
    Object.entries(scene.layers).map(([id, layer], i) => [id, i % 2 ? layer : { ...layer, hidden: !layer.hidden }]),
  ),
});

describe('frames of the demo, drawn forth and back by one drawer after an edit, are those of a drawer for each', () => {
  it.each(scenes.map((scene) => [scene.name, scene] as const))('%s', async (_name, scene) => {
    const materials = await materialsFor(scene, EMPTY_STOCK);
    const edited = drawerOf(before(scene), materials);
    const quick = drawerOf(scene, materials);
    // In steps of seven of fifteen: each comes once, forward and back.
    const frames = Array.from({ length: FRAMES }, (_, i) => ((i * 7) % FRAMES) * Math.floor(scene.length / FRAMES));
    const differing: number[] = [];
    for (const frame of frames) {
      edited.draw(frame);
      if (!pixelsAt(quick, frame).equals(pixelsAt(drawerOf(anew(scene), materials), frame))) differing.push(frame);
    }
    expect(differing).toEqual([]);
  });
});

describe('a run of frames drawn by one drawer, in which what stays is not drawn again, is that of a drawer for each', () => {
  it.each(scenes.map((scene) => [scene.name, scene] as const))('%s', async (_name, scene) => {
    const materials = await materialsFor(scene, EMPTY_STOCK);
    const quick = drawerOf(scene, materials);
    const differing: number[] = [];
    for (let frame = scene.length - FRAMES; frame < scene.length; frame++) {
      if (!pixelsAt(quick, frame).equals(pixelsAt(drawerOf(scene, materials), frame))) differing.push(frame);
    }
    expect(differing).toEqual([]);
  });
});
