-- How an assignment is graded.
alter table assignments
  -- What a result is called first.
  add column shown text not null default 'level' check (shown in ('level', 'points', 'percent')),
  add column decimals int not null default 2 check (decimals between 0 and 2),
  add column half_steps boolean not null default false,
  -- What a weighted result is out of, or one without criteria and questions; null for the sum of its parts.
  add column possible numeric(8, 2) check (possible > 0),
  add column late_rule jsonb;

alter table criteria
  -- Per cent of the result.
  add column weight numeric(5, 2) check (weight >= 0),
  add column bonus boolean not null default false;

-- A criterion has a level, or points of its own, or was not assessed.
alter table scores
  alter column level drop not null,
  add column points numeric(8, 2) check (points >= 0),
  add column not_assessed boolean not null default false,
  add constraint scores_one_way check (num_nonnulls(level, points) + not_assessed::int = 1);

-- What a teacher decides about one student in one assignment, whether a work is there or not.
create table standings (
  assignment uuid not null references assignments on delete cascade,
  student uuid not null references people on delete cascade,
  flag text check (flag in ('missing', 'incomplete', 'excused')),
  extended_until timestamptz,
  set_by uuid not null references people,
  set_at timestamptz not null default now(),
  primary key (assignment, student)
);

-- What a teacher adds to what was scored, or puts in its place.
create table adjustments (
  submission uuid primary key references submissions on delete cascade,
  extra numeric(8, 2),
  total numeric(8, 2) check (total >= 0),
  reason text not null default '',
  set_by uuid not null references people,
  set_at timestamptz not null default now()
);

alter table submissions
  -- The arithmetic of the result, as it was returned.
  add column explanation text,
  -- A teacher says that it may go out.
  add column ready_at timestamptz,
  -- Goes out by itself.
  add column return_at timestamptz,
  -- What of a returned work its student does not see yet.
  add column held text check (held in ('remarks', 'grade'));
create index submissions_return_at on submissions (return_at) where return_at is not null;

-- Each time a work went out, with what its student was given.
create table returns (
  submission uuid not null references submissions on delete cascade,
  number int not null check (number > 0),
  returned_at timestamptz not null default now(),
  returned_by uuid references people,
  given jsonb not null,
  primary key (submission, number)
);
