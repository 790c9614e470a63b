alter table sessions
  add column opened_at timestamptz not null default now(),
  add column seen_at timestamptz not null default now(),
  -- What the browser says that it is.
  add column browser text not null default '';
