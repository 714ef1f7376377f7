-- What people take from the shelf is kept as documents, whose ids name device, title and person.
alter table documents alter column id varchar(400);
