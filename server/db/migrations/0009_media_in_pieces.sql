-- Bytes come in in short statements, each on its own, and are referred to once all of them are there. What nothing refers to
-- stays for a while, since somebody may be about to.
alter table media add column complete boolean not null default true;
alter table media add column kept_at timestamptz not null default now();
