-- Browsers in which somebody has signed in before: a right password always lets them in from there, whatever others try.
create table known_browsers (
  token_hash bytea not null,
  person uuid not null references people on delete cascade,
  seen_at timestamptz not null default now(),
  primary key (token_hash, person)
);
create index known_browsers_person on known_browsers (person);
