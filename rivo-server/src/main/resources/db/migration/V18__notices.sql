-- What people at devices have been told and asked, a row each time that changes; and what is open of it.
create table notices (
  number bigint generated always as identity primary key,
  device varchar(64) not null,
  notice varchar(40) not null,
  at timestamp with time zone not null,
  kind varchar(20) not null,
  titles clob not null,
  person varchar(64),
  state varchar(20) not null,
  until_at timestamp with time zone,
  times_left int,
  answer varchar(20),
  refused varchar(40)
);
create index notices_by_device on notices (device, number);
create index notices_by_person on notices (person, number);
create index notices_by_time on notices (at);
create table open_notices (
  device varchar(64) primary key,
  notices clob not null
);
