-- Reports that are written together stand in one row, a JSON list in UTF-8 of at most some hundred thousand bytes: a row for each cost as much
-- to write, to find and to delete as all that it said.
create table report_batches (
  batch bigint primary key,
  reports varbinary(1000000) not null
);
insert into report_batches (batch, reports)
  select arrival, cast(json_array(json_object('device': device, 'number': report_number,
    'at': formatdatetime(at, 'yyyy-MM-dd''T''HH:mm:ss.SSSSSSXXX', 'en', 'UTC'), 'progress': progress format json)) as varbinary)
  from arrived_reports;
drop table arrived_reports;
-- The last of them whose reports stand in the rows of their devices; those up to it are only waiting to be deleted.
create table settled_batches (
  up_to bigint not null
);
insert into settled_batches (up_to) values (0);
