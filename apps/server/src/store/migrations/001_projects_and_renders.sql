create table projects (
  id text primary key,
  document jsonb not null,
  revision bigint not null default 0,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now(),
  deleted_at timestamptz
);

-- Append-only: what was changed, in order. A save that is sent twice is found by its own id.
create table edits (
  project_id text not null references projects (id),
  revision bigint not null,
  save_id text not null,
  label text not null,
  patches jsonb not null,
  created_at timestamptz not null default now(),
  primary key (project_id, revision),
  unique (project_id, save_id)
);

create table renders (
  id text primary key,
  project_id text not null,
  project_name text not null,
  scene jsonb not null,
  settings jsonb not null,
  status text not null check (status in ('queued', 'running', 'done', 'failed', 'cancelled')),
  done int not null default 0,
  total int not null,
  attempts int not null default 0,
  error text,
  result jsonb,
  file text,
  created_at timestamptz not null default now(),
  started_at timestamptz,
  finished_at timestamptz
);

create table facts (
  name text primary key,
  value text not null
);
