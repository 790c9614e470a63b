-- The words of a text with their places. Scripts that put no spaces between words are taken sign by sign. It asks no parser of
-- the database for what a letter is: those differ with its version and its locale, ICU does not.
create function word_vector(text text) returns tsvector language sql immutable parallel safe
  return (
    select coalesce(string_agg('''' || left(found.word[1], 200) || ''':' || least(found.place, 16383), ' '), '')::tsvector
    from regexp_matches(
      regexp_replace(normalize(left(text, 200000), nfc),
        U&'([\0E00-\0EFF\1000-\109F\1780-\17FF\3040-\30FF\3400-\9FFF\F900-\FAFF\+020000-\+03FFFF])', ' \1 ', 'g') collate any_language,
      '[[:alnum:]]+', 'g') with ordinality as found (word, place));

-- These words one after the other; the last may be the beginning of one. Null where there are none.
create function word_query(text text, whole boolean) returns tsquery language sql immutable parallel safe
  return (
    select string_agg('''' || found.lexeme || '''' || case when found.last and not whole then ':*' else '' end, ' <-> '
      order by found.place)::tsquery
    from (select lexeme, place, place = max(place) over () as last
          from unnest(word_vector(text)) as word (lexeme, places), unnest(places) as place) found);

-- All that a remark says, translated or not, as it is searched; with its course and time, neither of which ever changes.
create table remark_words (
  remark uuid primary key references remarks on delete cascade,
  course uuid not null references courses on delete cascade,
  made_at timestamptz not null,
  words tsvector not null
);
create index remark_words_words on remark_words using gin (words) with (fastupdate = off);
create index remark_words_course on remark_words (course, made_at desc, remark);

create function note_remark_words(which uuid) returns void language sql as $$
  insert into remark_words (remark, course, made_at, words)
    select r.id, a.course, r.made_at, word_vector(folded(concat_ws(' ', r.content ->> 'name', r.content ->> 'text', r.content ->> 'tags', t.text,
      (select string_agg(x.text, ' ' order by x.language) from translations x where x.recording = r.recording))))
    from remarks r join submissions s on s.id = r.submission join assignments a on a.id = s.assignment
    left join transcripts t on t.recording = r.recording where r.id = which
  on conflict (remark) do update set words = excluded.words
$$;

create function remark_was_worded() returns trigger language plpgsql as $$
begin
  perform note_remark_words(new.id);
  return null;
end $$;

create function recording_was_worded() returns trigger language plpgsql as $$
begin
  perform note_remark_words(r.id) from remarks r where r.recording = (case when tg_op = 'DELETE' then old.recording else new.recording end);
  return null;
end $$;

create trigger remarks_words after insert or update of content, recording on remarks
  for each row execute function remark_was_worded();
create trigger transcripts_words after insert or update or delete on transcripts
  for each row execute function recording_was_worded();
create trigger translations_words after insert or update or delete on translations
  for each row execute function recording_was_worded();

alter table transcripts drop column folded;
alter table translations drop column folded;
alter table remarks drop column folded;
select note_remark_words(id) from remarks;
