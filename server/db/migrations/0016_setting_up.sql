alter table people
  -- Looks after the school's people and settings, not its works.
  add column steward boolean not null default false,
  add column mail text check (mail <> ''),
  -- What the school knows a student by.
  add column number text check (number <> ''),
  -- Null for whoever was entered by somebody else and has chosen no password yet.
  add column came_in_at timestamptz default now();
create unique index people_mail on people (lower(mail));
create unique index people_number on people (lower(number));

-- Ways in: the first one opens the school, one of a person lets them choose a password, and one of a course lets whoever has it
-- come in as a student. Only its hash is kept.
create table codes (
  code_hash bytea primary key,
  opens text not null check (opens in ('school', 'person', 'course')),
  person uuid references people on delete cascade,
  course uuid references courses on delete cascade,
  made_by uuid references people on delete set null,
  made_at timestamptz not null default now(),
  expires_at timestamptz not null,
  -- One of a course may be used by many.
  used_at timestamptz,
  check ((opens = 'person') = (person is not null)),
  check ((opens = 'course') = (course is not null))
);
create index codes_person on codes (person);
create index codes_course on codes (course);

-- Students see an assignment once it is open.
alter table assignments add column open boolean not null default true;
