-- What a teacher has said well once and says again. On a work it stands as a copy, which lives on its own.
create table banked_remarks (
  id uuid primary key,
  owner uuid not null references people on delete cascade,
  recording uuid references recordings,
  -- What it says beside its recording, as in remarks.
  content jsonb not null,
  -- In longer words, for finding it.
  description text not null default '',
  kind text not null,
  -- Title of a criterion, so that it serves other rubrics too; empty where it serves all of them.
  criterion text not null default '',
  -- BCP 47 tag of what it says in writing; what is spoken has its own.
  language text not null,
  -- How many of its words are said before a name is; null where it has no gap for one.
  gap int check (gap > 0),
  -- The key that it keeps.
  pinned int check (pinned between 1 and 9),
  made_at timestamptz not null default now(),
  put_aside_at timestamptz,
  -- SHA-256 of the request that made it.
  made_from bytea,
  check (recording is not null or content ->> 'text' <> '' or content ->> 'link' is not null
    or content ->> 'reaction' is not null or content ->> 'suggestion' is not null),
  check (pinned is null or put_aside_at is null)
);
create index banked_remarks_owner on banked_remarks (owner, made_at);
create index banked_remarks_recording on banked_remarks (recording);
create unique index banked_remarks_pinned on banked_remarks (owner, pinned) where pinned is not null;

-- Where a banked remark was used, with the passage and what stands around it, from which suggestions are made.
create table bank_uses (
  remark uuid primary key references remarks on delete cascade,
  banked uuid not null references banked_remarks on delete cascade,
  person uuid not null references people on delete cascade,
  used_at timestamptz not null default now(),
  -- Whether a greeting to the student was spliced in: such a copy says a name.
  greeted boolean not null default false,
  before text not null,
  passage text not null,
  after text not null
);
create index bank_uses_banked on bank_uses (banked, used_at);
create index bank_uses_person on bank_uses (person, used_at);

-- A few words to one student by name, as one teacher says them.
create table greetings (
  teacher uuid not null references people on delete cascade,
  student uuid not null references people on delete cascade,
  recording uuid not null references recordings,
  primary key (teacher, student)
);
create index greetings_recording on greetings (recording);

-- Counts whatever a bank is found or suggested by, so that an index tells when it is out of date.
create table bank_versions (
  owner uuid primary key references people on delete cascade,
  version bigint not null
);

create function note_bank_change(whose uuid) returns void language sql as $$
  insert into bank_versions (owner, version) select id, 1 from people where id = whose
  on conflict (owner) do update set version = bank_versions.version + 1
$$;

create function bank_was_changed() returns trigger language plpgsql as $$
begin
  perform note_bank_change(case when tg_op = 'DELETE' then old.owner else new.owner end);
  return null;
end $$;
create trigger banked_remarks_changed after insert or update or delete on banked_remarks
  for each row execute function bank_was_changed();

create function bank_was_used() returns trigger language plpgsql as $$
begin
  perform note_bank_change(case when tg_op = 'DELETE' then old.person else new.person end);
  return null;
end $$;
create trigger bank_uses_changed after insert or update or delete on bank_uses
  for each row execute function bank_was_used();

create function bank_was_worded() returns trigger language plpgsql as $$
begin
  perform note_bank_change(b.owner) from banked_remarks b
    where b.recording = (case when tg_op = 'DELETE' then old.recording else new.recording end);
  return null;
end $$;
create trigger transcripts_banked after insert or update or delete on transcripts
  for each row execute function bank_was_worded();
create trigger translations_banked after insert or update or delete on translations
  for each row execute function bank_was_worded();
