-- When devices may carry jobs out, by their own clocks.
create table windows (
  id varchar(200) primary key,
  place int generated always as identity,
  name varchar(400) not null,
  fits varchar(8192),
  days clob not null,
  opens varchar(5) not null,
  minutes int not null,
  changed_by varchar(400) not null,
  changed_at timestamp with time zone not null
);
