-- Learning platforms that people come from and that grades go to (LTI 1.3).
create table platforms (
  id uuid primary key,
  name text not null,
  issuer text not null,
  client_id text not null,
  auth_address text not null,
  token_address text not null,
  keys_address text not null,
  -- Whoever has a mail address there is who has it here.
  trusts_mail boolean not null,
  -- The simulated one of the sample school.
  stand_in boolean not null default false,
  made_at timestamptz not null default now(),
  unique (issuer, client_id)
);

-- What this server signs with.
create table platform_keys (
  kid text primary key,
  private_key jsonb not null,
  public_key jsonb not null,
  made_at timestamptz not null default now()
);

-- Sign-ins that have begun; each ends once.
create table platform_logins (
  state_hash bytea primary key,
  nonce text not null,
  platform uuid not null references platforms on delete cascade,
  expires_at timestamptz not null
);

-- Who somebody of a platform is here.
create table platform_people (
  platform uuid not null references platforms on delete cascade,
  subject text not null,
  person uuid not null references people on delete cascade,
  primary key (platform, subject)
);
create index platform_people_person on platform_people (person);

-- Courses of platforms, and which course each is here.
create table platform_contexts (
  id uuid primary key,
  platform uuid not null references platforms on delete cascade,
  context text not null,
  title text not null,
  course uuid references courses on delete set null,
  -- Its services, as the last launch told them; null where there are none.
  members_address text,
  items_address text,
  unique (platform, context)
);
create index platform_contexts_course on platform_contexts (course);

-- Who has come from one, and whether as a teacher.
create table platform_roles (
  context uuid not null references platform_contexts on delete cascade,
  person uuid not null references people on delete cascade,
  teaches boolean not null,
  primary key (context, person)
);
create index platform_roles_person on platform_roles (person);

-- The column that a platform has for an assignment.
create table platform_items (
  context uuid not null references platform_contexts on delete cascade,
  assignment uuid not null references assignments on delete cascade,
  address text not null,
  primary key (context, assignment)
);

-- Grades that were sent there.
create table platform_grades (
  context uuid not null references platform_contexts on delete cascade,
  assignment uuid not null references assignments on delete cascade,
  student uuid not null references people on delete cascade,
  points numeric(8, 2) not null,
  possible numeric(8, 2) not null,
  tried_at timestamptz not null,
  -- Why it did not arrive; null where it did.
  problem text,
  primary key (context, assignment, student)
);
create index platform_grades_student on platform_grades (student);
