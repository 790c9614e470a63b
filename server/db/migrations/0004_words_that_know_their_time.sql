-- The language that people speak when they do not say otherwise; null follows the course, then English.
alter table people add column spoken_language text;
alter table courses add column spoken_language text not null default 'en';

alter table transcripts
  -- What made it, in words for people; empty where a person typed it.
  add column engine text not null default '',
  -- Whether its word times are shared out between pauses instead of measured.
  add column approximate boolean not null default false,
  -- A machine's draft has been read, or a person wrote it.
  add column read boolean not null default true;
update transcripts set read = source <> 'machine';

-- Every earlier state of a transcript, as it was until it was changed.
create table transcript_states (
  id bigint generated always as identity primary key,
  remark uuid not null references remarks on delete cascade,
  language text not null,
  text text not null,
  words jsonb not null,
  source text not null,
  engine text not null,
  approximate boolean not null,
  read boolean not null,
  until timestamptz not null default now(),
  changed_by uuid references people
);
create index transcript_states_remark on transcript_states (remark);

-- The same words in other languages.
create table translations (
  remark uuid not null references remarks on delete cascade,
  language text not null,
  text text not null,
  source text not null check (source in ('machine', 'person', 'bank')),
  engine text not null default '',
  changed_at timestamptz not null default now(),
  primary key (remark, language)
);

-- What is to be listened to: a new recording for its words, or known words for their times.
create table speech_jobs (
  remark uuid primary key references remarks on delete cascade,
  task text not null check (task in ('transcribe', 'align')),
  -- BCP 47 tag of what is probably spoken.
  language text not null,
  state text not null default 'queued' check (state in ('queued', 'running', 'done', 'failed')),
  -- In plain words, for people.
  reason text,
  attempts int not null default 0,
  queued_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);
create index speech_jobs_queued on speech_jobs (queued_at) where state = 'queued';

-- What a person has agreed to: where their voice may go to be written down.
create table speech_agreements (
  person uuid not null references people on delete cascade,
  place text not null check (place in ('speech server', 'browser cloud', 'translation server')),
  agreed_at timestamptz not null default now(),
  primary key (person, place)
);
