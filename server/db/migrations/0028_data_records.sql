-- What the school exported or erased of one person, and who did it. It outlives the person, and says nothing else about them.
create table data_records (
  id uuid primary key default gen_random_uuid(),
  what text not null check (what in ('exported', 'erased')),
  person uuid not null,
  by_name text not null,
  at timestamptz not null default now(),
  works integer not null,
  recordings integer not null
);
