-- A rubric that works have been scored by stays; what is changed becomes a new version of it.
alter table assignments add column rubric_version int not null default 1;
alter table criteria add column version int not null default 1;
alter table criteria drop constraint criteria_assignment_position_key;
alter table criteria add constraint criteria_in_order unique (assignment, version, position);
-- The version that a work is scored by; null for whichever is the newest.
alter table submissions add column rubric_version int;
