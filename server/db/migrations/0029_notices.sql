-- How somebody wants to be told what is new, and up to when they were.
create table notice_settings (
  person uuid primary key references people on delete cascade,
  by_mail boolean not null default true,
  -- Hours of their day, from 0 to 23, between which no mail goes out.
  quiet_from smallint not null default 20 check (quiet_from between 0 and 23),
  quiet_to smallint not null default 7 check (quiet_to between 0 and 23),
  zone text not null default 'UTC',
  seen_at timestamptz,
  mailed_at timestamptz
);
