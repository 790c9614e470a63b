-- How the results of a course make its own; null: all points added up.
alter table courses add column grading jsonb;

-- Adds to what is earned in its course, and nothing to what is possible.
alter table assignments add column extra boolean not null default false;

-- A result without a work, as it was typed in the gradebook.
create table entered_grades (
  assignment uuid not null references assignments on delete cascade,
  student uuid not null references people on delete cascade,
  points numeric(8, 2) not null check (points >= 0),
  entered_by uuid not null references people,
  entered_at timestamptz not null default now(),
  -- Its student sees it.
  returned_at timestamptz,
  primary key (assignment, student)
);
create index entered_grades_student on entered_grades (student);

-- What a student's result of an assignment was, and what it became.
create table grade_changes (
  id bigint generated always as identity primary key,
  assignment uuid not null references assignments on delete cascade,
  student uuid not null references people on delete cascade,
  -- Null where it came about by itself.
  changed_by uuid references people on delete set null,
  changed_at timestamptz not null default now(),
  was jsonb not null,
  now jsonb not null,
  why text not null default ''
);
create index grade_changes_cell on grade_changes (assignment, student, id);
create index grade_changes_student on grade_changes (student);
