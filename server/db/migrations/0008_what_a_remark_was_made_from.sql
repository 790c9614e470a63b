-- SHA-256 of the request that made it, to tell one that comes again from another under the same id; null where it was made before.
alter table remarks add column made_from bytea;
