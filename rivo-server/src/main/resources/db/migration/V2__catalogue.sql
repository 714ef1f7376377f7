-- What a title is besides its name. A row from before keeps its columns, from which the rest is filled in when it is read.
alter table titles add column seats int;
alter table titles add column conflicts_with clob default '[]' not null;
alter table titles add column trusted_signers clob default '[]' not null;
alter table titles add column about clob;
alter table titles add column revision bigint default 1 not null;
alter table titles add column changed_by varchar(400);
alter table titles add column changed_at timestamp with time zone;

alter table releases add column note varchar(2000) default '' not null;
alter table releases add column needs clob default '[]' not null;
alter table releases add column replaces clob default '[]' not null;

alter table variants add column fits varchar(8192);
alter table variants add column program clob;
