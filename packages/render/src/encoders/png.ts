import { writeFile } from 'node:fs/promises';
import type { StillSettings } from '@kite/core/delivery/formats/table';
import { frameDrawer } from '../frames';
import { materialsFor } from '../materials';
import type { Encoder } from './types';

export const png: Encoder<StillSettings> = async ({ scene, stock, plan, out, done }) => {
  const drawer = frameDrawer(scene, await materialsFor(scene, stock), { ...plan, under: null });
  drawer.draw(plan.frames[0] as number);
  await writeFile(out, await drawer.canvas.encode('png'));
  done();
};
