import { checkProject } from '@kite/core/check/project';
import type { PictureAsset, Scene } from '@kite/core/document/types';
import { editedByHand } from '@kite/core/moves/poseStrip';
import { soleSource } from '@kite/core/recipe/needs';
import { compileScene } from '@kite/core/scene/compile';
import { wholeScene } from '@kite/core/scene/whole';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { expect, it } from 'vitest';
import { demoProject } from './project';
import { STARTERS, starterProject } from './starters/table';

it('is a sound project, the same on every run', () => {
  expect(checkProject(demoProject())).toEqual(demoProject());
});

const photo: PictureAsset = {
  id: 'photo',
  kind: 'picture',
  name: 'Photo',
  sha: 'a'.repeat(64),
  type: 'image/png',
  width: 1920,
  height: 1080,
  bytes: 1000,
};

it.each(STARTERS.map((starter) => [starter.name, starter] as const))(
  '%s is a sound starter, which shows itself, and all of whose plain colours are swatches',
  async (_name, starter) => {
    const project = starterProject(
      starter,
      (starter.pictures ?? []).map(() => photo),
    );
    expect(checkProject(project)).toEqual(project);
    const [first] = project.order;
    const scene = wholeScene(project.scenes[first!] as Scene, project);
    const { library } = await materialsFor(scene, EMPTY_STOCK);
    const program = compileScene(scene, { ...library, assets: project.assets });
    for (const frame of [0, scene.poster, scene.length - 1]) expect(program.at(frame).problems).toEqual([]);
    expect(program.at(scene.poster).marks.length).toBeGreaterThan(0);
    expect(project.swatches.length).toBeGreaterThan(0);
    for (const own of Object.values(project.scenes)) {
      // What poses have written still follows them.
      expect(editedByHand(own)).toEqual([]);
      for (const layer of Object.values(own.layers)) {
        if (layer.kind !== 'drawing') continue;
        for (const { kind, params } of Object.values(layer.items)) {
          if (kind === 'fill' && params.color && 'value' in params.color) expect(params.color.swatch).toBeDefined();
        }
      }
    }
  },
);

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
