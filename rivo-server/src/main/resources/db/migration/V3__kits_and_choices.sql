-- What a release lets an assignment or a person fix.
alter table releases add column choices clob default '[]' not null;
alter table assignments add column choices clob default '{}' not null;
create table person_choices (
  title varchar(200) not null references titles,
  person varchar(64) not null,
  choices clob not null,
  set_by varchar(400) not null,
  set_at timestamp with time zone not null,
  primary key (title, person)
);

-- Who accepted a licence text for the organisation; another text has to be accepted anew.
create table licence_acceptances (
  title varchar(200) not null references titles,
  text_sha256 char(64) not null,
  who varchar(400) not null,
  at timestamp with time zone not null,
  primary key (title, text_sha256)
);

-- Titles that are assigned together, in the order in which they are put on.
create table kits (
  id varchar(200) primary key,
  place int generated always as identity,
  name varchar(400) not null,
  description varchar(2000) not null,
  revision bigint not null,
  changed_by varchar(400) not null,
  changed_at timestamp with time zone not null
);
create table kit_titles (
  kit varchar(200) not null references kits,
  place int not null,
  title varchar(200) not null references titles,
  primary key (kit, place)
);

-- An assignment is about a title or about a kit.
alter table assignments alter column title drop not null;
alter table assignments add column kit varchar(200) references kits;
update drafts set edits = replace(edits, '"title":"', '"subject":"title:');
