-- Files that projects use; what is in them lies in the file store.
create table assets (
  sha text primary key,
  kind text not null check (kind in ('picture', 'font')),
  facts jsonb not null,
  created_at timestamptz not null default now()
);

-- What a render's scene uses of its project's assets.
alter table renders add column assets jsonb not null default '{}';

-- Scene sizes kept under names of one's own.
create table sizes (
  id text primary key,
  name text not null,
  size jsonb not null,
  created_at timestamptz not null default now()
);
