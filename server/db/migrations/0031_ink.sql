-- What was drawn is a remark as well.
alter table remarks drop constraint remarks_say_something;
alter table remarks add constraint remarks_say_something check (
  criterion is not null or recording is not null or file is not null or content ->> 'text' <> '' or content ->> 'link' is not null
  or content ->> 'reaction' is not null or content ->> 'suggestion' is not null or content ->> 'stamp' is not null
  or content ->> 'ink' is not null);
