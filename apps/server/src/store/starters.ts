/** What projects start from: built when it is first asked for, its pictures drawn and kept as imported ones are. */
import type { Project, Scene } from '@kite/core/document/types';
import { STARTERS, type Starter, starterProject } from '@kite/demo/starters/table';
import { frameDrawer } from '@kite/render/frames';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { Refused } from '../errors';
import type { AssetStore } from './assets';

const pngOf = async (scene: Scene): Promise<Uint8Array> => {
  const { width, height } = scene;
  const size = { width, height, drawn: { width, height }, under: null };
  const drawer = frameDrawer(scene, await materialsFor(scene, EMPTY_STOCK), size);
  drawer.draw(scene.poster);
  return drawer.canvas.encode('png');
};

export class StarterStore {
  private readonly built = new Map<string, Promise<Project>>();

  constructor(private readonly assets: AssetStore) {}

  private async build(starter: Starter): Promise<Project> {
    const pictures = [];
    for (const sceneOf of starter.pictures ?? []) {
      const scene = sceneOf();
      const asset = await this.assets.add(await pngOf(scene), scene.name);
      if (asset.kind === 'picture') pictures.push(asset);
    }
    return starterProject(starter, pictures);
  }

  list(): readonly Pick<Starter, 'id' | 'name' | 'about'>[] {
    return STARTERS.map(({ id, name, about }) => ({ id, name, about }));
  }

  /** Its document; Refused for one that there is not. */
  async open(id: string): Promise<Project> {
    const starter = STARTERS.find((own) => own.id === id);
    if (!starter) throw new Refused('not_found', 'There is no such starter.');
    const made = this.built.get(id) ?? this.build(starter);
    this.built.set(id, made);
    // What went wrong once, as on a full disk, is tried again.
    made.catch(() => this.built.delete(id));
    return made;
  }
}
