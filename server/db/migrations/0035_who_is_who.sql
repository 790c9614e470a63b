-- The course whose teacher entered somebody; null where nobody of a course did.
alter table people add column made_in uuid references courses on delete set null;
create index people_made_in on people (made_in);
update people p set made_in = (
  select e.course from enrolments e where e.person = p.id and e.role in ('student', 'left') order by e.course limit 1);

-- Somebody who has an account already is asked into a course.
create table course_invitations (
  course uuid not null references courses on delete cascade,
  person uuid not null references people on delete cascade,
  role text not null check (role in ('teacher', 'student')),
  -- As whoever invited them calls them: the list says no more of them than that teacher knew.
  name text not null,
  invited_by uuid references people on delete set null,
  made_at timestamptz not null default now(),
  primary key (course, person)
);
create index course_invitations_person on course_invitations (person);
create index course_invitations_invited_by on course_invitations (invited_by);

-- Which of a platform's deployments is this school's; null until the first launch says it.
alter table platforms add column deployment text check (deployment <> '');
-- What its launches allow to be done with grades.
alter table platform_contexts add column scopes jsonb not null default '[]';

-- Somebody has come from a platform and is to say whether they have an account here.
create table platform_arrivals (
  secret_hash bytea primary key,
  platform uuid not null references platforms on delete cascade,
  launch jsonb not null,
  expires_at timestamptz not null
);
create index platform_arrivals_platform on platform_arrivals (platform);
