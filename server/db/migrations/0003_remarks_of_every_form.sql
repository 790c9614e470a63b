-- Null: the key that every course begins with.
alter table courses add column margin_key jsonb;

-- Seconds that a spoken remark should take; null where nobody counts.
alter table assignments add column budget int default 30 check (budget > 0);

-- A remark is spoken, written, or both; it may be a link, a file, a reaction, a suggestion or a stamp.
alter table remarks
  alter column sound drop not null,
  alter column duration drop not null,
  alter column peaks drop not null,
  add column picture text check (picture in ('camera', 'screen')),
  -- The recording as it was spoken, and what of it is heard.
  add column original bytea references media,
  add column edit jsonb,
  add column name text not null default '',
  add column text text not null default '',
  add column link text,
  add column reaction text,
  add column suggestion text,
  add column taken_at timestamptz,
  add column stamp jsonb,
  add column stamp_picture bytea references media,
  add column file bytea references media,
  add column file_name text,
  add column private boolean not null default false,
  add column tags jsonb not null default '[]',
  add column criterion uuid references criteria on delete set null,
  add constraint remarks_sound check ((sound is null) = (duration is null) and (sound is null) = (peaks is null)),
  add constraint remarks_file check ((file is null) = (file_name is null)),
  add constraint remarks_not_empty check (
    sound is not null or text <> '' or link is not null or reaction is not null or suggestion is not null
    or stamp is not null or file is not null);

-- A teacher's own pictures, to be stamped on works.
create table stamp_pictures (
  id uuid primary key,
  owner uuid not null references people on delete cascade,
  name text not null,
  file bytea not null references media,
  made_at timestamptz not null default now()
);
create index stamp_pictures_owner on stamp_pictures (owner);
