-- Who came into a group of the directory and who left it, by what the group itself lists. Kept for three months.
create table membership_changes (
  number bigint generated always as identity primary key,
  group_id varchar(64) not null,
  kind varchar(10) not null,
  member varchar(64) not null,
  came boolean not null,
  at timestamp with time zone not null
);
create index membership_changes_by_group on membership_changes (group_id, number);
create index membership_changes_by_time on membership_changes (at);
