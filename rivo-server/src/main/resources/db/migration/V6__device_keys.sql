-- Devices derive what they sign with from their own key and the server's: only public keys are kept, and all have to enrol anew.
drop table enrolments;
drop table tokens;
create table tokens (
  public_key char(43) primary key,
  device varchar(64) not null,
  valid_until timestamp with time zone not null,
  used_by char(43)
);
create table enrolments (
  device varchar(64) primary key,
  public_key char(43) not null,
  server_tag char(8) not null,
  at timestamp with time zone not null
);
