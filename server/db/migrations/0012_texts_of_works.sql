-- The text of a work on its own: what a remark quotes is looked for there, without all that its folio says beside it.
alter table submissions add column text text not null generated always as (coalesce(folio ->> 'text', '')) stored;
