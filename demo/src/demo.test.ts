import { checkProject } from '@kite/core/check/project';
import type { Scene } from '@kite/core/document/types';
import { NO_LIBRARY, compileScene } from '@kite/core/scene/compile';
import { expect, it } from 'vitest';
import { demoProject } from './project';

it('is a sound project, the same on every run', () => {
  expect(checkProject(demoProject())).toEqual(demoProject());
});

it('draws every frame without a problem', () => {
  const project = demoProject();
  for (const id of project.order) {
    const scene = project.scenes[id] as Scene;
    const program = compileScene(scene, NO_LIBRARY);
    for (let frame = 0; frame < scene.length; frame++) expect(program.at(frame).problems).toEqual([]);
    expect(program.at(scene.poster).marks.length).toBeGreaterThan(0);
  }
});
