-- What works without names are called by; nobody outside the database knows it, so nobody can find out whose they are.
alter table assignments add column secret uuid not null default gen_random_uuid();
