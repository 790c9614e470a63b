-- Mail to people of the school, until it has gone out; then what it said is forgotten, since it may hold a way in.
create table mails (
  id uuid primary key,
  person uuid references people on delete cascade,
  address text not null,
  subject text not null,
  body text,
  made_at timestamptz not null default now(),
  -- When it is to be tried next; null once it went out or nobody tries any more.
  try_at timestamptz default now(),
  tries int not null default 0,
  sent_at timestamptz,
  -- Why it did not go out, in the words of whoever refused it.
  refused text
);
create index mails_waiting on mails (try_at) where try_at is not null;
create index mails_person on mails (person);
