-- What the works of a second marking were drawn with: whoever has it can draw them again.
alter table moderations add column seed text not null default '';
