-- Objects that no upload has: they go an hour later, under a lock of their row.
create table unneeded (
  object varchar(64) not null primary key,
  since timestamp with time zone not null
);
-- A person whom a provider of OpenID Connect named has no token.
alter table sessions alter column token_id drop not null;
alter table sessions add column person varchar(200);
create index sessions_by_person on sessions (person);
