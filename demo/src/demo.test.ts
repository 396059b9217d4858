import { checkProject } from '@kite/core/check/project';
import type { Scene } from '@kite/core/document/types';
import { soleSource } from '@kite/core/recipe/needs';
import { compileScene } from '@kite/core/scene/compile';
import { wholeScene } from '@kite/core/scene/whole';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { expect, it } from 'vitest';
import { demoProject } from './project';

it('is a sound project, the same on every run', () => {
  expect(checkProject(demoProject())).toEqual(demoProject());
});

it('draws every frame without a problem, its words in its fonts', async () => {
  const project = demoProject();
  let texts = 0;
  for (const id of project.order) {
    const scene = wholeScene(project.scenes[id] as Scene, project);
    const { library } = await materialsFor(scene, EMPTY_STOCK);
    const program = compileScene(scene, library);
    for (let frame = 0; frame < scene.length; frame++) expect(program.at(frame).problems).toEqual([]);
    expect(program.at(scene.poster).marks.length).toBeGreaterThan(0);
    for (const layer of Object.values(scene.layers)) {
      if (soleSource(layer) !== 'text') continue;
      texts++;
      expect(program.marksAt(layer.id, scene.poster).length, layer.name).toBeGreaterThan(0);
    }
  }
  expect(texts).toBeGreaterThan(2);
});
