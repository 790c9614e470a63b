-- A student asks about a criterion on which nothing was said: the remark that opens such a thread says nothing by itself.
alter table remarks drop constraint remarks_say_something;
alter table remarks add constraint remarks_say_something check (
  criterion is not null or recording is not null or file is not null or content ->> 'text' <> '' or content ->> 'link' is not null
  or content ->> 'reaction' is not null or content ->> 'suggestion' is not null or content ->> 'stamp' is not null);
