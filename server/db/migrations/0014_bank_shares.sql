-- With whom a banked remark is shared: a colleague, or all who teach a course.
create table bank_shares (
  banked uuid not null references banked_remarks on delete cascade,
  person uuid references people on delete cascade,
  course uuid references courses on delete cascade,
  check ((person is null) <> (course is null)),
  unique nulls not distinct (banked, person, course)
);
create index bank_shares_person on bank_shares (person);
create index bank_shares_course on bank_shares (course);

-- Whether others may have it said in its owner's voice.
alter table banked_remarks add column lends_voice boolean not null default false;

create function bank_was_shared() returns trigger language plpgsql as $$
begin
  perform note_bank_change(b.owner) from banked_remarks b
    where b.id = (case when tg_op = 'DELETE' then old.banked else new.banked end);
  return null;
end $$;
create trigger bank_shares_changed after insert or update or delete on bank_shares
  for each row execute function bank_was_shared();
