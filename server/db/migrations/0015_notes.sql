-- Something that is said about no work: in the instructions of an assignment, on one of its questions, to everyone in it, or on the
-- page of a course.
create table notes (
  id uuid primary key,
  course uuid not null references courses on delete cascade,
  place text not null check (place in ('instructions', 'question', 'class', 'course')),
  assignment uuid references assignments on delete cascade,
  question uuid references questions on delete cascade,
  author uuid not null references people,
  recording uuid references recordings,
  -- What it says beside its recording, as in remarks.
  content jsonb not null,
  made_at timestamptz not null default now(),
  put_aside_at timestamptz,
  -- SHA-256 of the request that made it.
  made_from bytea,
  check ((place = 'course') = (assignment is null)),
  check ((place = 'question') = (question is not null)),
  check (recording is not null or content ->> 'text' <> '' or content ->> 'link' is not null)
);
create index notes_course on notes (course);
create index notes_recording on notes (recording);
