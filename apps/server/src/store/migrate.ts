import type { Db } from './db';
import first from './migrations/001_projects_and_renders.sql';
import second from './migrations/002_assets.sql';
import third from './migrations/003_snapshots.sql';
import fourth from './migrations/004_deliveries.sql';
import fifth from './migrations/005_history.sql';
import sixth from './migrations/006_taken_away.sql';
import seventh from './migrations/007_versions.sql';

/** In order; one that has run is never changed. */
const MIGRATIONS: readonly string[] = [first, second, third, fourth, fifth, sixth, seventh];

export const migrate = async (db: Db): Promise<void> => {
  await db.exec(
    'create table if not exists migrations (number int primary key, run_at timestamptz not null default now())',
  );
  const [row] = await db.query<{ last: number | null }>('select max(number) as last from migrations');
  for (let n = row?.last ?? 0; n < MIGRATIONS.length; n++) {
    await db.exec(`begin; ${MIGRATIONS[n]}; insert into migrations (number) values (${n + 1}); commit;`);
  }
};
