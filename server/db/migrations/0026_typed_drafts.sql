-- What a student types in the app, saved as they type; it stays after it was handed in, so that it can be revised.
create table typed_drafts (
  assignment uuid not null references assignments on delete cascade,
  student uuid not null references people on delete cascade,
  html text not null,
  changed_at timestamptz not null default clock_timestamp(),
  primary key (assignment, student)
);
create index on typed_drafts (student);
