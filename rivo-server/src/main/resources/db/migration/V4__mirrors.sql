-- Caching web servers near the devices.
create table mirrors (
  id varchar(200) primary key,
  place int generated always as identity,
  name varchar(400) not null,
  address varchar(400) not null,
  fits varchar(8192),
  mirror_key varchar(64) not null,
  changed_by varchar(400) not null,
  changed_at timestamp with time zone not null
);

-- What devices fetched from a mirror, or (mirror '-') from the server itself, and what the mirror fetched from the server.
create table mirror_traffic (
  mirror varchar(200) not null,
  sha256 char(64) not null,
  fetches bigint default 0 not null,
  fetched_bytes bigint default 0 not null,
  served_bytes bigint default 0 not null,
  primary key (mirror, sha256)
);
