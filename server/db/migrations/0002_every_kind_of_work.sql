-- A work is one or more files of any kind, or the answers to the questions of its assignment.
create table submission_files (
  submission uuid not null references submissions on delete cascade,
  position int not null,
  name text not null,
  format text not null,
  file bytea not null references media,
  primary key (submission, position)
);

insert into submission_files (submission, position, name, format, file)
  select id, 0, file_name, 'docx', file from submissions;

-- What was one flowing text is now the first leaf of a folio.
update submissions set folio = jsonb_build_object(
  'title', folio->'title',
  'files', jsonb_build_array(jsonb_build_object('name', file_name, 'format', 'docx')),
  'text', folio->'text',
  'leaves', jsonb_build_array(jsonb_build_object(
    'kind', 'text', 'label', 'Text', 'file', 0, 'start', 0, 'end', folio->'leaves'->0->'end', 'blocks', folio->'blocks')));

alter table submissions
  drop column file_name,
  drop column file,
  -- When a teacher first opened it: until then its student may withdraw it.
  add column opened_at timestamptz,
  add column withdrawn_at timestamptz;

update submissions s set opened_at = coalesce(s.returned_at, now())
  where s.returned_at is not null or exists (select from remarks r where r.submission = s.id);

create table questions (
  id uuid primary key,
  assignment uuid not null references assignments on delete cascade,
  position int not null,
  kind text not null check (kind in ('short', 'long', 'number', 'choice')),
  prompt text not null,
  choices jsonb not null default '[]',
  points numeric(8, 2) not null check (points >= 0),
  unique (assignment, position)
);

-- What a student has typed so far and not handed in yet.
create table answer_drafts (
  assignment uuid not null references assignments on delete cascade,
  student uuid not null references people on delete cascade,
  answers jsonb not null,
  changed_at timestamptz not null default now(),
  primary key (assignment, student)
);

create table question_points (
  submission uuid not null references submissions on delete cascade,
  question uuid not null references questions,
  points numeric(8, 2) not null check (points >= 0),
  given_by uuid not null references people,
  given_at timestamptz not null default now(),
  primary key (submission, question)
);

-- Where a remark on an earlier version belongs in a later one.
create table reattachments (
  remark uuid not null references remarks on delete cascade,
  submission uuid not null references submissions on delete cascade,
  status text not null check (status in ('same', 'moved', 'changed', 'lost')),
  anchor jsonb,
  confidence double precision not null,
  placed_by uuid references people,
  primary key (remark, submission),
  check ((status = 'lost') = (anchor is null))
);
create index reattachments_submission on reattachments (submission);
