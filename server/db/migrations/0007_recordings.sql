-- A recording is a thing of its own; remarks, replies and whatever comes later point to it. Until now it was part of a remark or
-- a reply and goes on under the id of that one, so that what browsers still hold about it finds it.
create table recordings (
  id uuid primary key,
  owner uuid not null references people,
  -- As it is heard.
  medium bytea not null references media,
  -- As it was spoken, where that is something else, and what of it is heard.
  original bytea references media,
  edit jsonb,
  -- Seconds.
  duration double precision not null check (duration > 0),
  peaks jsonb not null,
  picture text check (picture in ('camera', 'screen')),
  -- What is probably spoken.
  language text not null,
  made_at timestamptz not null default now()
);

insert into recordings (id, owner, medium, original, edit, duration, peaks, picture, language, made_at)
  select r.id, r.author, r.sound, r.original, r.edit, r.duration, r.peaks, r.picture,
    coalesce(t.language, p.spoken_language, c.spoken_language), r.made_at
  from remarks r join people p on p.id = r.author join submissions s on s.id = r.submission
  join assignments a on a.id = s.assignment join courses c on c.id = a.course
  left join transcripts t on t.remark = r.id
  where r.sound is not null;

insert into recordings (id, owner, medium, duration, peaks, language, made_at)
  select y.id, y.author, y.sound, y.duration, y.peaks, coalesce(p.spoken_language, c.spoken_language), y.made_at
  from replies y join people p on p.id = y.author join remarks r on r.id = y.remark
  join submissions s on s.id = r.submission join assignments a on a.id = s.assignment join courses c on c.id = a.course
  where y.sound is not null;

-- Words that somebody imported for a remark without sound become what it says.
update remarks r set text = left(concat_ws(E'\n', nullif(r.text, ''), t.text), 20000)
  from transcripts t where t.remark = r.id and r.sound is null and t.text <> '';
delete from transcripts t using remarks r where r.id = t.remark and r.sound is null;
delete from transcript_states t using remarks r where r.id = t.remark and r.sound is null;
delete from translations t using remarks r where r.id = t.remark and r.sound is null;
delete from speech_jobs j using remarks r where r.id = j.remark and r.sound is null;
delete from listenings l using remarks r where r.id = l.remark and r.sound is null;

alter table transcripts drop constraint transcripts_remark_fkey;
alter table transcripts rename column remark to recording;
alter table transcripts add constraint transcripts_recording_fkey
  foreign key (recording) references recordings on delete cascade;

alter table transcript_states drop constraint transcript_states_remark_fkey;
alter table transcript_states rename column remark to recording;
alter table transcript_states add constraint transcript_states_recording_fkey
  foreign key (recording) references recordings on delete cascade;
alter index transcript_states_remark rename to transcript_states_recording;

alter table translations drop constraint translations_remark_fkey;
alter table translations rename column remark to recording;
alter table translations add constraint translations_recording_fkey
  foreign key (recording) references recordings on delete cascade;

alter table speech_jobs drop constraint speech_jobs_remark_fkey;
alter table speech_jobs rename column remark to recording;
alter table speech_jobs add constraint speech_jobs_recording_fkey
  foreign key (recording) references recordings on delete cascade;

alter table listenings drop constraint listenings_remark_fkey;
alter table listenings rename column remark to recording;
alter table listenings add constraint listenings_recording_fkey
  foreign key (recording) references recordings on delete cascade;

-- What a remark says and nobody filters or joins by is one value. The criterion, the pictures and whether it is private stay columns.
alter table remarks add column recording uuid references recordings, add column content jsonb;
update remarks set recording = case when sound is not null then id end, content = jsonb_build_object(
  'name', name, 'text', text, 'link', link, 'reaction', reaction, 'suggestion', suggestion, 'stamp', stamp, 'tags', tags);
alter table remarks
  drop column folded, drop column sound, drop column original, drop column edit, drop column duration, drop column peaks,
  drop column picture, drop column name, drop column text, drop column link, drop column reaction,
  drop column suggestion, drop column stamp, drop column tags,
  alter column content set not null,
  add column folded text not null generated always as (
    folded((content ->> 'name') || ' ' || (content ->> 'text') || ' ' || (content ->> 'tags'))) stored,
  add constraint remarks_say_something check (
    recording is not null or file is not null or content ->> 'text' <> '' or content ->> 'link' is not null
    or content ->> 'reaction' is not null or content ->> 'suggestion' is not null or content ->> 'stamp' is not null);
create index remarks_recording on remarks (recording);

alter table replies add column recording uuid references recordings;
update replies set recording = id where sound is not null;
alter table replies
  drop column sound, drop column duration, drop column peaks,
  add constraint replies_say_something check (text <> '' or recording is not null);
create index replies_recording on replies (recording);
