-- The directory, by stable id. OUs without a parent: the suffix.
create table ous (
  id varchar(64) primary key,
  dn varchar(2000) not null,
  name varchar(400) not null,
  parent varchar(64)
);
create table fences (ou varchar(64) primary key);
create table users (
  id varchar(64) primary key,
  dn varchar(2000) not null,
  account varchar(400) not null,
  full_name varchar(400) not null,
  mail varchar(400),
  department varchar(400),
  ou varchar(64),
  enabled boolean not null
);
create table computers (
  id varchar(64) primary key,
  dn varchar(2000) not null,
  name varchar(400) not null,
  ou varchar(64),
  enabled boolean not null
);
create table computer_people (
  computer varchar(64) not null,
  place int not null,
  person varchar(64) not null,
  primary key (computer, place)
);
create table directory_groups (
  id varchar(64) primary key,
  dn varchar(2000) not null,
  name varchar(400) not null
);
create table group_members (
  group_id varchar(64) not null,
  place int not null,
  kind varchar(10) not null,
  member varchar(64) not null,
  primary key (group_id, place)
);
create table directory_scans (
  id int primary key,
  at timestamp with time zone not null,
  entries int not null
);

-- The catalogue. Content itself lies outside, by its hash.
create table titles (
  id varchar(200) primary key,
  place int generated always as identity,
  name varchar(400) not null,
  maker varchar(400) not null,
  inventory_name varchar(400) not null
);
create table releases (
  title varchar(200) not null references titles,
  version varchar(200) not null,
  state varchar(20) not null,
  primary key (title, version)
);
create table variants (
  title varchar(200) not null,
  version varchar(200) not null,
  place int not null,
  id varchar(200) not null,
  sha256 char(64),
  size bigint,
  file_name varchar(400),
  install_command varchar(2000),
  remove_command varchar(2000),
  limit_seconds int not null,
  primary key (title, version, place),
  foreign key (title, version) references releases
);

-- What was decided.
create table changes (
  number bigint primary key,
  who varchar(400) not null,
  at timestamp with time zone not null,
  reason varchar(2000) not null
);
create table assignments (
  id varchar(200) primary key,
  seq bigint not null unique,
  state varchar(20) not null,
  title varchar(200) not null references titles,
  intent varchar(20) not null,
  binding boolean not null,
  priority int not null,
  change_number bigint not null references changes
);
create table assignment_ous (
  assignment varchar(200) not null references assignments,
  ou varchar(64) not null,
  primary key (assignment, ou)
);
create table drafts (
  who varchar(400) primary key,
  edits clob not null
);

-- The devices' own part.
create table tokens (
  hash char(64) primary key,
  device varchar(64) not null,
  valid_until timestamp with time zone not null,
  nonce varchar(200)
);
create table enrolments (
  device varchar(64) primary key,
  device_key varchar(64) not null,
  at timestamp with time zone not null
);
create table device_reports (
  device varchar(64) primary key,
  last_number bigint not null,
  facts clob not null,
  software clob not null,
  present clob not null,
  at timestamp with time zone not null
);
create table call_ins (
  device varchar(64) primary key,
  at timestamp with time zone not null
);
create table jobs (
  device varchar(64) not null,
  title varchar(200) not null,
  action varchar(20) not null,
  version varchar(200),
  state varchar(20) not null,
  step int not null,
  steps int not null,
  percent int not null,
  message varchar(2000) not null,
  exit_code int,
  at timestamp with time zone not null,
  primary key (device, title)
);
create table job_log (
  number bigint generated always as identity primary key,
  device varchar(64) not null,
  title varchar(200) not null,
  action varchar(20) not null,
  state varchar(20) not null,
  step int not null,
  message varchar(2000) not null,
  at timestamp with time zone not null
);
create index job_log_by_device on job_log (device, title, number);

-- Append only: who, when, why, before, after.
create table journal (
  number bigint generated always as identity primary key,
  at timestamp with time zone not null,
  who varchar(400) not null,
  kind varchar(100) not null,
  subject varchar(400) not null,
  why varchar(2000),
  before_value clob,
  after_value clob
);
create index journal_by_subject on journal (subject, number);
create index group_members_by_member on group_members (member);
