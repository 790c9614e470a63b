-- What people send comes in piece by piece, and may break off and go on later. Once it is whole, a medium may refer to it: its bytes
-- stay where they came in.
create table uploads (
  id uuid primary key,
  owner uuid not null references people on delete cascade,
  byte_length bigint not null check (byte_length >= 0),
  received bigint not null default 0 check (received between 0 and byte_length),
  -- Once it is whole.
  sha256 bytea,
  made_at timestamptz not null default now()
);
create index uploads_owner on uploads (owner, made_at);

create table upload_chunks (
  upload uuid not null references uploads on delete cascade,
  position int not null,
  bytes bytea not null,
  primary key (upload, position)
);

alter table media add column upload uuid references uploads;
create index media_upload on media (upload);
