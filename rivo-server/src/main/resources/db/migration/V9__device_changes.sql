-- What devices report leaves the journal: only what has changed, with its instant.
create table device_changes (
  number bigint generated always as identity primary key,
  device varchar(64) not null,
  at timestamp with time zone not null,
  before_value clob not null,
  after_value clob not null
);
create index device_changes_by_device on device_changes (device, number);
create index device_changes_by_time on device_changes (at);
create index job_log_by_time on job_log (at);

insert into device_changes (device, at, before_value, after_value)
  select substring(subject from 8), at, coalesce(before_value, '{}'), coalesce(after_value, '{}') from journal
  where kind = 'device-reported' order by number;
delete from journal where kind = 'device-reported';
