create table school (
  only_one boolean primary key default true check (only_one),
  name text not null,
  sample boolean not null
);

create table people (
  id uuid primary key,
  name text not null,
  login text not null unique check (login = lower(login)),
  password_hash text not null,
  created_at timestamptz not null default now()
);

create table sessions (
  token_hash bytea primary key,
  person uuid not null references people on delete cascade,
  expires_at timestamptz not null
);

create table courses (
  id uuid primary key,
  title text not null
);

create table enrolments (
  course uuid not null references courses on delete cascade,
  person uuid not null references people on delete cascade,
  role text not null check (role in ('teacher', 'student')),
  primary key (course, person)
);
create index enrolments_person on enrolments (person);

-- What people said or handed in, as immutable bytes under their SHA-256.
create table media (
  sha256 bytea primary key check (length(sha256) = 32),
  media_type text not null,
  byte_length int not null check (byte_length > 0)
);

create table media_chunks (
  sha256 bytea not null references media on delete cascade,
  position int not null,
  bytes bytea not null,
  primary key (sha256, position)
);

create table assignments (
  id uuid primary key,
  course uuid not null references courses on delete cascade,
  title text not null,
  brief text not null,
  due_at timestamptz,
  created_at timestamptz not null default now()
);
create index assignments_course on assignments (course);

create table criteria (
  id uuid primary key,
  assignment uuid not null references assignments on delete cascade,
  position int not null,
  title text not null,
  description text not null,
  unique (assignment, position)
);

create table levels (
  id uuid primary key,
  criterion uuid not null references criteria on delete cascade,
  position int not null,
  title text not null,
  description text not null,
  points numeric(8, 2) not null check (points >= 0),
  unique (criterion, position),
  unique (criterion, id)
);

create table bands (
  assignment uuid not null references assignments on delete cascade,
  grade text not null,
  from_percentage numeric(5, 2) not null check (from_percentage between 0 and 100),
  primary key (assignment, grade)
);

create table submissions (
  id uuid primary key,
  assignment uuid not null references assignments on delete cascade,
  student uuid not null references people,
  version int not null check (version > 0),
  file_name text not null,
  file bytea not null references media,
  folio jsonb not null,
  handed_in_at timestamptz not null default now(),
  returned_at timestamptz,
  returned_by uuid references people,
  -- The result as it was returned.
  points numeric(8, 2),
  possible numeric(8, 2),
  percentage numeric(6, 2),
  grade text,
  unique (assignment, student, version)
);

create table submission_pictures (
  submission uuid not null references submissions on delete cascade,
  position int not null,
  file bytea not null references media,
  primary key (submission, position)
);

create table scores (
  submission uuid not null references submissions on delete cascade,
  criterion uuid not null references criteria,
  level uuid not null,
  chosen_by uuid not null references people,
  chosen_at timestamptz not null default now(),
  primary key (submission, criterion),
  foreign key (criterion, level) references levels (criterion, id)
);

create table remarks (
  id uuid primary key,
  submission uuid not null references submissions on delete cascade,
  author uuid not null references people,
  kind text not null,
  anchor jsonb not null,
  sound bytea not null references media,
  -- Seconds.
  duration double precision not null check (duration > 0),
  peaks jsonb not null,
  made_at timestamptz not null default now(),
  put_aside_at timestamptz
);
create index remarks_submission on remarks (submission);

create table transcripts (
  remark uuid not null references remarks on delete cascade,
  language text not null,
  text text not null,
  words jsonb not null,
  source text not null check (source in ('machine', 'person', 'bank')),
  changed_at timestamptz not null default now(),
  primary key (remark)
);

create table listenings (
  remark uuid not null references remarks on delete cascade,
  person uuid not null references people,
  begun_at timestamptz not null default now(),
  finished_at timestamptz,
  primary key (remark, person)
);

create table replies (
  id uuid primary key,
  remark uuid not null references remarks on delete cascade,
  author uuid not null references people,
  text text not null,
  sound bytea references media,
  duration double precision check (duration > 0),
  peaks jsonb,
  made_at timestamptz not null default now(),
  check (text <> '' or sound is not null),
  check ((sound is null) = (duration is null) and (sound is null) = (peaks is null))
);
create index replies_remark on replies (remark);
