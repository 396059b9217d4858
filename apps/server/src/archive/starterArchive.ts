/** Starters and the demo as archives are read: a project, and the files that it shows. */
import { createHash } from 'node:crypto';
import type { PictureAsset, Project, Scene } from '@kite/core/document/types';
import { demoProject } from '@kite/demo/project';
import { STARTERS, starterProject } from '@kite/demo/starters/table';
import { frameDrawer } from '@kite/render/frames';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';

interface Begun {
  readonly project: Project;
  readonly files: Map<string, Uint8Array>;
}

/** What a scene shows on its poster, as a picture of a project. */
const pictureOf = async (scene: Scene): Promise<{ readonly asset: PictureAsset; readonly bytes: Uint8Array }> => {
  const { name, width, height, poster } = scene;
  const size = { width, height, drawn: { width, height }, under: null };
  const drawer = frameDrawer(scene, await materialsFor(scene, EMPTY_STOCK), size);
  drawer.draw(poster);
  const bytes = await drawer.canvas.encode('png');
  const sha = createHash('sha256').update(bytes).digest('hex');
  const asset = { id: `picture-${scene.id}`, kind: 'picture', name, sha, type: 'image/png', width, height } as const;
  return { asset: { ...asset, bytes: bytes.length }, bytes };
};

/** By the id of a starter; the demo for null. */
export const begunFrom = async (id: string | null): Promise<Begun> => {
  if (id === null) return { project: demoProject(), files: new Map() };
  const starter = STARTERS.find((own) => own.id === id);
  if (!starter) throw new RangeError(`there is no starter "${id}"`);
  const pictures = [];
  for (const sceneOf of starter.pictures ?? []) pictures.push(await pictureOf(sceneOf()));
  return {
    project: starterProject(
      starter,
      pictures.map(({ asset }) => asset),
    ),
    files: new Map(pictures.map(({ asset, bytes }) => [asset.sha, bytes])),
  };
};
