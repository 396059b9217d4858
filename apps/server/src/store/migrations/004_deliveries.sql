-- Renders belong to deliveries, have names for their files, and are known for what they were made of.
alter table renders add column delivery text;
alter table renders add column delivery_name text;
alter table renders add column file_name text not null default '';
alter table renders add column batch text;
alter table renders add column asked_by text not null default '';
-- Of the scene, its files and the settings, so that what would come out the same is known.
alter table renders add column made_of text not null default '';
-- The SHA-256 of a small picture.
alter table renders add column picture text;
update renders set file_name = regexp_replace(scene->>'name', '[\\/:*?"<>|[:cntrl:]]+', ' ', 'g');
create index on renders (delivery, project_id);
