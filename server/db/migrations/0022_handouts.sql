-- Files that an assignment hands out: something to start from, or a work to learn from.
create table handouts (
  id uuid primary key,
  assignment uuid not null references assignments on delete cascade,
  name text not null,
  file bytea not null references media,
  -- Students have it at once, or each of them with their returned work.
  given text not null check (given in ('atOnce', 'withReturn')),
  made_at timestamptz not null default now(),
  put_aside_at timestamptz
);
create index handouts_assignment on handouts (assignment);
create index handouts_file on handouts (file);
