-- What administrators edit is kept as documents: one JSON form for each kind (docs/decisions/0014-documents.md).
create table documents (
  kind varchar(20) not null,
  id varchar(200) not null,
  place bigint generated always as identity,
  revision bigint not null,
  json clob not null,
  changed_by varchar(400) not null,
  changed_at timestamp with time zone not null,
  change_number bigint,
  primary key (kind, id)
);

insert into documents (kind, id, revision, json, changed_by, changed_at)
  select 'kit', k.id, k.revision, cast(json_object('id': k.id, 'name': k.name, 'description': k.description, 'titles':
    (select json_arrayagg(t.title order by t.place) from kit_titles t where t.kit = k.id) format json) as varchar), k.changed_by, k.changed_at
  from kits k order by k.place;

insert into documents (kind, id, revision, json, changed_by, changed_at)
  select 'window', id, 1, cast(json_object('id': id, 'name': name, 'fits': fits, 'days': days format json, 'opens': opens, 'minutes': minutes
    absent on null) as varchar), changed_by, changed_at
  from windows order by place;

insert into documents (kind, id, revision, json, changed_by, changed_at)
  select 'fence', ou, 1, cast(json_object('id': ou) as varchar), 'from before', current_timestamp from fences order by ou;

insert into documents (kind, id, revision, json, changed_by, changed_at, change_number)
  select 'assignment', a.id, 1, cast(json_object('id': a.id, 'seq': a.seq, 'state': lower(a.state),
    'subject': case when a.kit is null then 'title:' || a.title else 'kit:' || a.kit end, 'intent': lower(a.intent), 'follows': 'device',
    'include': (select json_arrayagg('ou:' || o.ou order by o.ou) from assignment_ous o where o.assignment = a.id) format json,
    'binding': a.binding, 'priority': a.priority, 'choices': a.choices format json absent on null) as varchar), c.who, c.at, c.number
  from assignments a join changes c on c.number = a.change_number order by a.seq;

drop table kit_titles;
drop table assignment_ous;
drop table assignments;
drop table kits;
drop table windows;
drop table fences;

-- A draft is a list of steps. Those of before are taken over when the server starts.
alter table drafts rename to earlier_drafts;
create table drafts (
  who varchar(400) primary key,
  draft clob not null
);
