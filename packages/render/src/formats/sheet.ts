/** Frames of all scenes of an archive on one sheet, to be compared with the sheet that was drawn when its format was new. */
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { wholeScene } from '@kite/core/scene/whole';
import type { Scene } from '@kite/core/document/types';
import { sizeAt } from '@kite/core/geometry/size';
import { readArchive } from '@kite/core/interchange/archive';
import { type Canvas, createCanvas } from '@napi-rs/canvas';
import { frameDrawer } from '../frames';
import { materialsFor, stockFor } from '../materials';

const CELL = 120;
/** Of a scene's length. */
const MOMENTS = [0.2, 0.5, 0.9];

export const sheetOf = async (archive: Uint8Array): Promise<Canvas> => {
  const { project, files } = readArchive(archive);
  const folder = await mkdtemp(join(tmpdir(), 'kite-formats-'));
  try {
    for (const [sha, bytes] of files) await writeFile(join(folder, sha), bytes);
    const sheet = createCanvas(CELL * MOMENTS.length, CELL * project.order.length);
    const context = sheet.getContext('2d');
    for (const [row, id] of project.order.entries()) {
      const scene = wholeScene(project.scenes[id] as Scene, project);
      const scale = Math.min(1, CELL / scene.width, CELL / scene.height);
      const size = sizeAt(scene, scale);
      const materials = await materialsFor(
        scene,
        stockFor(scene, project.assets, (sha) => join(folder, sha)),
      );
      const drawer = frameDrawer(scene, materials, { ...size, drawn: size, under: null });
      for (const [column, moment] of MOMENTS.entries()) {
        drawer.draw(Math.floor(scene.length * moment));
        context.drawImage(drawer.canvas, column * CELL, row * CELL);
      }
    }
    return sheet;
  } finally {
    await rm(folder, { recursive: true });
  }
};
