-- Whose signatures are trusted, and what was found of the signature of each content when it was read.
create table trusted_roots (
  id varchar(64) primary key,
  kind varchar(20) not null,
  name varchar(200) not null,
  content clob not null,
  until_at timestamp with time zone,
  who varchar(200) not null,
  at timestamp with time zone not null
);
create table content_signatures (
  sha256 varchar(64) primary key,
  signature clob not null
);
