-- Text as it is searched: without capitals and accents, and with one sort of apostrophe, as core/transcript/find.ts does it. Databases differ in what they take for letters, ICU does not.
create collation any_language (provider = icu, locale = 'und');
create function folded(text text) returns text language sql immutable parallel safe
  return translate(regexp_replace(normalize(lower(text collate any_language), nfd), U&'[\0300-\036F]', '', 'g'), '’', '''');

alter table transcripts add column folded text not null generated always as (folded(text)) stored;
alter table translations add column folded text not null generated always as (folded(text)) stored;
alter table remarks add column folded text not null generated always as (folded(name || ' ' || text)) stored;
