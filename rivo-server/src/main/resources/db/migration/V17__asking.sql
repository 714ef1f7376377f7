-- What taking a title from the shelf asks for.
alter table titles add column asks varchar(200);
