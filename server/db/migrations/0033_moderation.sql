-- Where a second teacher scores without seeing what was given: it is in nobody's list of courses.
alter table courses add column second_marking boolean not null default false;

-- Some works of an assignment, scored by a second teacher who does not see the first scores.
create table moderations (
  id uuid primary key,
  assignment uuid not null references assignments on delete cascade,
  -- What both score by.
  rubric_version integer not null,
  -- The same works, in a course that only the second teacher teaches until it is handed over: everything of a desk is there.
  second_assignment uuid not null unique references assignments on delete cascade,
  marker uuid not null references people,
  started_by uuid not null references people,
  started_at timestamptz not null default now(),
  -- When the second teacher handed it over; nothing of it changes any more.
  finished_at timestamptz,
  called_off_at timestamptz
);
create index moderations_assignment on moderations (assignment);
create index moderations_marker on moderations (marker);

create table moderated_works (
  moderation uuid not null references moderations on delete cascade,
  work uuid not null references submissions on delete cascade,
  second_work uuid not null unique references submissions on delete cascade,
  reason text not null check (reason in ('random', 'border', 'highest', 'lowest')),
  -- Both as they were when it was handed over, by the criteria and levels of the assignment.
  first_scores jsonb,
  second_scores jsonb,
  settled_scores jsonb,
  settled_by uuid references people on delete set null,
  settled_at timestamptz,
  why text not null default '',
  primary key (moderation, work)
);
create index moderated_works_work on moderated_works (work);
