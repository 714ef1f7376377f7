-- In which hours of the last two weeks a device called in, and how long jobs usually take.
alter table call_ins add column hours varbinary(100);
create table usual_durations (
  title varchar(200) not null,
  action varchar(20) not null,
  seconds clob not null,
  primary key (title, action)
);
