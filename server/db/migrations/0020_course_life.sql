alter table courses
  -- Names of the parts of a year, in their order.
  add column terms jsonb not null default '[]',
  -- Its people read it, and nothing new comes into it.
  add column put_aside_at timestamptz;

alter table assignments
  add column term text,
  add column category text not null default '',
  -- Per cent of the result of its course.
  add column weight numeric(5, 2) check (weight between 0 and 100),
  -- How many versions may be handed in; null for as many as one likes.
  add column attempts int check (attempts > 0),
  -- Formats of files that are taken; null for all that can be read.
  add column formats jsonb;

-- Whoever has left a course has no part in it any more; their works stay with its teachers.
alter table enrolments drop constraint enrolments_role_check;
alter table enrolments add constraint enrolments_role check (role in ('teacher', 'student', 'left'));
