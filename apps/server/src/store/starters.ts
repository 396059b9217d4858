/** What projects start from: made in a thread of its own when it is asked for. */
import { madeOnce } from '@kite/core/document/remembered';
import { STARTERS, type Starter } from '@kite/demo/starters/table';
import { beginApart, takeIn } from '../archive/archives';
import { Refused } from '../errors';
import type { Posters } from '../posters/posters';
import type { AssetStore } from './assets';
import { newId } from './ids';
import type { Projects } from './projectsApart';

const known = (id: string): string => {
  if (!STARTERS.some((own) => own.id === id)) throw new Refused('not_found', 'There is no such starter.');
  return id;
};

export class StarterStore {
  /** The documents that have been looked at, as JSON. */
  private readonly looks = madeOnce((id: string) => this.look(id));

  constructor(
    private readonly projects: Projects,
    private readonly assets: AssetStore,
    private readonly posters: Posters,
  ) {}

  list(): readonly Pick<Starter, 'id' | 'name' | 'about'>[] {
    return STARTERS.map(({ id, name, about }) => ({ id, name, about }));
  }

  private async look(id: string): Promise<Uint8Array> {
    const { project, assets, files } = await beginApart(id, `starter-${id}`, []);
    await this.assets.addAll(assets, files);
    return new TextEncoder().encode(`{"document":${project.text}}`);
  }

  /** Its document, as JSON; Refused for one that there is not. */
  async open(id: string): Promise<Uint8Array> {
    return this.looks(known(id));
  }

  /** A WebP of its poster; Refused for one that there is not. */
  async poster(id: string): Promise<Uint8Array> {
    return this.posters.starter(known(id));
  }

  /** A copy as a project of its own; the demo for null. */
  async begin(id: string | null): Promise<{ readonly id: string; readonly name: string }> {
    const names = (await this.projects.list()).map(({ name }) => name);
    const { projects, assets } = this;
    return takeIn(await beginApart(id === null ? null : known(id), newId(), names), { projects, assets });
  }
}
