-- What takes an edit back, who made it, and which other edit it takes back or makes again.
alter table edits add column inverse jsonb;
alter table edits add column undoes text;
alter table edits add column redoes text;
alter table edits add column by_id text;
alter table edits add column by_name text;

-- States of projects that are kept under names.
create table checkpoints (
  id text primary key,
  project_id text not null references projects (id),
  name text not null,
  document jsonb not null,
  revision bigint not null,
  made_at timestamptz not null default now(),
  by_name text
);
create index on checkpoints (project_id);

-- Scenes that were deleted, with the files that they draw on.
create table removed_scenes (
  project_id text not null references projects (id),
  scene_id text not null,
  name text not null,
  scene jsonb not null,
  assets jsonb not null,
  removed_at timestamptz not null default now(),
  primary key (project_id, scene_id)
);

-- Words that projects are found by.
alter table projects add column tags jsonb not null default '[]';
