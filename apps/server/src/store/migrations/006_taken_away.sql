-- What was taken away is kept for a while, and can be brought back.
alter table renders add column removed_at timestamptz;
alter table checkpoints add column removed_at timestamptz;
