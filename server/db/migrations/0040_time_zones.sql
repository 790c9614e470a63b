-- Which school it is, for the files and services of others.
alter table school add column id uuid not null default gen_random_uuid();
-- Of the IANA database: in it are the school's days, and the quiet hours of whoever has not been here yet.
alter table school add column zone text not null default 'UTC';

-- Of the clock of the browser in which somebody was here last.
alter table people add column zone text;
update people p set zone = n.zone from notice_settings n where n.person = p.id and n.zone <> 'UTC';
alter table notice_settings drop column zone;
