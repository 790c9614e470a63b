-- Teachers do not see whose a work is until it is returned.
alter table assignments add column anonymous boolean not null default false;
