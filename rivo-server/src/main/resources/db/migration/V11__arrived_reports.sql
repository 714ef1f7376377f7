-- Reports as they arrive, one below the other: whoever appends writes one page, however many devices report. A moment later they are
-- settled into the rows of their devices, and go.
create table arrived_reports (
  arrival bigint generated always as identity primary key,
  device varchar(64) not null,
  report_number bigint not null,
  at timestamp with time zone not null,
  progress clob not null
);
