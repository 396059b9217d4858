-- A render of a delivery may show a version of its project.
alter table renders add column version text;
alter table renders add column version_name text;
