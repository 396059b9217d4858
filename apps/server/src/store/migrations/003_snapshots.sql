-- A project's document is a snapshot; the edits after its revision are in the log. Lists need no documents.
alter table projects add column snapshot bigint not null default 0;
alter table projects add column name text not null default '';
alter table projects add column scenes int not null default 0;
update projects set snapshot = revision, name = document->>'name', scenes = jsonb_array_length(document->'order');
