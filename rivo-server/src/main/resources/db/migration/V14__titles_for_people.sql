-- A title is installed for the device or for each person; what devices report and do says for whom, and who signs in there.
alter table titles add column scope varchar(10) default 'device' not null;
create table sign_ins (
  device varchar(64) primary key,
  people clob not null
);
alter table jobs add column person varchar(64) default '' not null;
alter table jobs drop primary key;
alter table jobs add primary key (device, title, person);
alter table job_log add column person varchar(64) default '' not null;
create index job_log_by_unit on job_log (device, title, person, number);
drop index job_log_by_device;
