/** Projects from chance, broken in one place or more: checked, and drawn where they pass. */
import { Invalid } from '@kite/core/check/problem';
import { checkProject } from '@kite/core/check/project';
import { upgraded } from '@kite/core/check/versions';
import { wholeScene } from '@kite/core/scene/whole';
import type { Scene } from '@kite/core/document/types';
import { Chance } from '@kite/core/test/random';
import { randomProject } from '@kite/core/test/randomProject';
import { frameDrawer } from '@kite/render/frames';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { broken } from './broken';
import { fault, type Figures, Times } from './report';

const LONGEST_MS = 10_000;

export const documents = async (count: number, seed: number): Promise<Figures> => {
  const [checking, drawing] = [new Times(), new Times()];
  let [passed, refused, faults, cut] = [0, 0, 0, 0];
  for (let n = 0; n < count; n++) {
    const chance = new Chance(seed * 1e6 + n);
    const hostile = chance.happens(0.6) ? broken(chance, randomProject(chance)) : randomProject(chance);
    try {
      const project = await checking.of(() => checkProject(upgraded(JSON.parse(JSON.stringify(hostile)))));
      passed++;
      const scene = wholeScene(project.scenes[chance.one(project.order)] as Scene, project);
      const materials = await materialsFor(scene, EMPTY_STOCK);
      await drawing.of(() => {
        const drawer = frameDrawer(scene, materials, {
          width: 64,
          height: 64,
          drawn: { width: 64, height: 64 },
          under: null,
        });
        drawer.draw(chance.whole(0, scene.length - 1));
      });
      if (drawing.last > LONGEST_MS) {
        faults++;
        fault('a frame that took too long', seed * 1e6 + n, `${Math.round(drawing.last)} ms`);
      }
    } catch (error) {
      if (error instanceof Invalid) {
        refused++;
        if (error.message.length > 500) cut++;
      } else {
        faults++;
        fault('a document', seed * 1e6 + n, String((error as Error).stack ?? error));
      }
    }
  }
  return {
    'documents checked': count,
    'of them sound, and drawn': passed,
    'refused in words': refused,
    'messages over 500 characters': cut,
    'longest check, ms': checking.longest,
    'longest frame, ms': drawing.longest,
    faults,
  };
};
