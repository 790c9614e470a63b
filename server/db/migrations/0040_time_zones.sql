-- Identifies the school in exported files.
alter table school add column id uuid not null default gen_random_uuid();
-- IANA time zone: for dates in exported files, and the quiet hours of people who haven't signed in yet.
alter table school add column zone text not null default 'UTC';

-- IANA time zone of the browser that the person used last.
alter table people add column zone text;
update people p set zone = n.zone from notice_settings n where n.person = p.id and n.zone <> 'UTC';
alter table notice_settings drop column zone;
