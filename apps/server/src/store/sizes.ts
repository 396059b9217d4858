/** Scene sizes kept under names of one's own, for every project. */
import type { SavedSize } from '@kite/api/library';
import { Invalid } from '@kite/core/check/problem';
import type { Db } from './db';
import { newId } from './ids';

const MOST = 100;

export class SizeStore {
  constructor(private readonly db: Db) {}

  list(): Promise<SavedSize[]> {
    return this.db.query<SavedSize & object>('select id, name, size from sizes order by created_at, id');
  }

  async keep({ name, size }: Omit<SavedSize, 'id'>): Promise<SavedSize> {
    if ((await this.list()).length >= MOST)
      throw new Invalid(`${MOST} sizes are kept at the most: remove one first.`, 'name');
    const saved: SavedSize = { id: newId(), name, size };
    await this.db.query('insert into sizes (id, name, size) values ($1, $2, $3::jsonb)', [
      saved.id,
      name,
      JSON.stringify(size),
    ]);
    return saved;
  }

  async remove(id: string): Promise<void> {
    await this.db.query('delete from sizes where id = $1', [id]);
  }
}
