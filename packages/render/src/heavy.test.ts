/** Projects that pass the check and ask for more than a frame can have: each is drawn, and what is left out is told. */
import { checkProject } from '@kite/core/check/project';
import { wholeScene } from '@kite/core/scene/whole';
import type { Scene } from '@kite/core/document/types';
import { MOST_WORK } from '@kite/core/recipe/room';
import { compileScene } from '@kite/core/scene/compile';
import { blended, HEAVY } from '@kite/core/test/heavyProjects';
import { describe, expect, it } from 'vitest';
import { frameDrawer } from './frames';
import { EMPTY_STOCK, materialsFor } from './materials';

/** What each leaves out; nothing where there is room for all of it. */
const TOLD: { readonly [name: string]: RegExp | null } = {
  'nests 16 deep and 2 wide': /too intricate for one frame/,
  'nests 8 deep and 10 wide': /too intricate for one frame/,
  '200 layers of 20,000 copies': /more than 20,000 copies/,
  '100 texts with 1,000 copies': /takes too much for one frame/,
  'a combine above 1,000 copies of a star': /too intricate to be combined/,
  'an offset and a combine of 5,000 vertices': /too intricate to be combined/,
  'a wide offset of many points': /too intricate to be combined/,
  '100 blended layers at 8192': /takes too much for one frame/,
  'dashes without end': /too intricate for one frame/,
  'zig-steps over zig-steps': /too intricate for one frame/,
  'tapers of many dashes': null,
  'tapers of long dashes on long outlines': /takes too much for one frame/,
  'curves a million pixels away': null,
  'groups in groups': null,
};

const sceneOf = (name: string): Scene => {
  const made = checkProject((HEAVY[name] as () => ReturnType<(typeof HEAVY)[string]>)());
  const project = name.includes('blended') ? blended(made) : made;
  return wholeScene(project.scenes[project.order[0] as string] as Scene, project);
};

describe('a frame of', () => {
  it('each of these is accounted for', () => expect(Object.keys(TOLD)).toEqual(Object.keys(HEAVY)));

  it.each(Object.entries(TOLD))('%s is drawn, and what is left out is told', async (name, told) => {
    const scene = sceneOf(name);
    const materials = await materialsFor(scene, EMPTY_STOCK);
    const { problems } = compileScene(scene, materials.library).at(0);
    if (told) expect(problems.map((p) => p.message).join()).toMatch(told);
    else expect(problems).toEqual([]);
    const drawer = frameDrawer(scene, materials, {
      width: scene.width,
      height: scene.height,
      drawn: scene,
      under: null,
    });
    drawer.draw(0);
    expect(drawer.pixels().length).toBe(scene.width * scene.height * 4);
  });

  it('the same scene is the same whatever was worked out before', async () => {
    const { library } = await materialsFor(sceneOf('200 layers of 20,000 copies'), EMPTY_STOCK);
    const first = compileScene(sceneOf('200 layers of 20,000 copies'), library);
    const other = compileScene(sceneOf('200 layers of 20,000 copies'), library);
    // One layer by itself, then other frames: what is constant is known when the frame is asked for.
    other.marksAt('l3', 0);
    other.at(5);
    const [a, b] = [first.at(0), other.at(0)];
    expect([a.marks.length, a.work, a.problems]).toEqual([b.marks.length, b.work, b.problems]);
    expect(a.work).toBeGreaterThan(MOST_WORK);
  });
});
