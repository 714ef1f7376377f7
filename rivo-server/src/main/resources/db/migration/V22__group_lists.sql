-- Whom a group lists stands in rows of up to a thousand, a JSON list in UTF-8 of targets in order (user:ID, group:ID, device:ID): all of it is
-- read whenever the server starts and whenever the directory is compared, and there were as many rows as members.
create table group_lists (
  group_id varchar(64) not null,
  part int not null,
  members varbinary(1000000) not null,
  primary key (group_id, part)
);
-- Computers whose account is disabled, with the groups that list them: the one thing that is asked by member.
create table disabled_members (
  group_id varchar(64) not null,
  computer varchar(64) not null,
  primary key (group_id, computer)
);
create index disabled_members_by_computer on disabled_members (computer);
insert into disabled_members (group_id, computer)
  select distinct m.group_id, m.member from computers c join group_members m on m.member = c.id and m.kind = 'DEVICE' where c.enabled = false;
-- In the order of an index, so that what is gathered at one time is one row.
drop index group_members_by_member;
alter table group_members add part int generated always as (place / 1000);
create index group_members_by_part on group_members (group_id, part);
insert into group_lists (group_id, part, members)
  select group_id, part, cast(json_arrayagg(lower(kind) || ':' || member order by place) as varbinary) from group_members group by group_id, part;
drop table group_members;
