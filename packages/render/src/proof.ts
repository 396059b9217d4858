/** Checks of a project where nobody waits: frames are drawn on the server's canvas. */
import type { Id, Project, Scene } from '@kite/core/document/types';
import { settledIn } from '@kite/core/edits/settling';
import { asVersion } from '@kite/core/edits/versions';
import { paint } from '@kite/core/paint/canvas';
import { type Context2D, SurfacePool } from '@kite/core/paint/surface';
import { type Asked, finished, isOtherwise, proofOf, proofOfVersion } from '@kite/core/proof/look';
import { listSeen } from '@kite/core/proof/seen';
import type { Finding, Rules, See } from '@kite/core/proof/types';
import { compileScene } from '@kite/core/scene/compile';
import { wholeScene } from '@kite/core/scene/whole';
import { createCanvas } from '@napi-rs/canvas';
import { surface } from './frames';
import { type Materials, materialsFor, type Stock } from './materials';

/** Draws a scene for its checks, with the materials that it needs. */
const seeingWith =
  ({ library, pictures }: Materials) =>
  (scene: Scene): See => {
    const program = compileScene(scene, library);
    const tools = { pool: new SurfacePool(surface), pictures };
    return (frame, view) => {
      const { width, height, matrix } = view;
      const context = createCanvas(width, height).getContext('2d');
      paint(context as unknown as Context2D, listSeen(program, frame, view), { width, height, view: matrix }, tools);
      return context.getImageData(0, 0, width, height).data;
    };
  };

export interface Proof {
  readonly rules: Rules;
  /** What the last files of deliveries weigh, in bytes. */
  readonly weights?: ReadonlyMap<Id, number>;
}

/** All that is to be said of a scene of a project, and of its versions. */
export const proofOfScene = async (
  own: Scene,
  project: Project,
  stock: Stock,
  { rules, weights = new Map() }: Proof,
): Promise<readonly Finding[]> => {
  const askedOf = async (shown: Project): Promise<Asked> => {
    const scene = wholeScene(shown.scenes[own.id] ?? own, shown);
    const materials = await materialsFor(scene, { ...stock, assets: shown.assets });
    const { library } = materials;
    return { project: settledIn(shown, own.id, library), library, rules, weights, seeing: seeingWith(materials) };
  };
  const usual = finished(proofOf(own, await askedOf(project)));
  const found = [...usual];
  for (const version of project.versions.rows) {
    const shown = asVersion(project, version.id);
    if (!isOtherwise(own, project, shown)) continue;
    found.push(...finished(proofOfVersion(own.id, version, await askedOf(shown), usual)));
  }
  return found;
};
