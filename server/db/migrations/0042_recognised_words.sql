-- Words that a program reads in scanned pages and in pictures, which have no text of their own.
create table recognition_jobs (
  submission uuid primary key references submissions on delete cascade,
  state text not null default 'queued' check (state in ('queued', 'running', 'done', 'failed')),
  attempts integer not null default 0,
  queued_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);
create index recognition_jobs_queued on recognition_jobs (queued_at) where state = 'queued';

create table recognised_leaves (
  submission uuid not null references submissions on delete cascade,
  leaf integer not null,
  lines jsonb not null,
  primary key (submission, leaf)
);
