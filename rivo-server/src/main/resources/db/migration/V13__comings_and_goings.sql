-- Besides groups, OUs and collections tell who came and went, and why; collections how many devices they held.
alter table membership_changes alter column group_id rename to audience;
alter table membership_changes alter column audience varchar(80);
update membership_changes set audience = 'group:' || audience;
alter table membership_changes add column why varchar(1000);
alter table membership_changes add column name varchar(1000);
create table collection_sizes (
  collection varchar(80) not null,
  at timestamp with time zone not null,
  devices int not null,
  primary key (collection, at)
);
create index users_by_enabled on users (enabled);
create index computers_by_enabled on computers (enabled);
