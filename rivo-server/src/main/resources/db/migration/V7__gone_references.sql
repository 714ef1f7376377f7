-- What assignments name and the directory does not have any more: whom it held when it left.
create table gone_references (
  kind varchar(20) not null,
  id varchar(64) not null,
  name varchar(400) not null,
  since timestamp with time zone not null,
  devices clob not null,
  users clob not null,
  primary key (kind, id)
);
-- Such OUs were left out until now; who was in them is not known.
insert into gone_references (kind, id, name, since, devices, users)
  select distinct 'ou', ou, ou, current_timestamp, '[]', '[]' from assignment_ous where ou not in (select id from ous);
