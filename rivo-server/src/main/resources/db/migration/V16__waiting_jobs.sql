-- What a job waits for, and how much of its content is there, as the device last said.
alter table jobs add column waits_for varchar(20);
alter table jobs add column waits_until timestamp with time zone;
alter table jobs add column fetching_bytes bigint;
alter table jobs add column fetching_all bigint;
