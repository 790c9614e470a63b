-- Null points mean that the last attempt was to withdraw the grade.
alter table platform_grades alter column points drop not null;
alter table platform_grades alter column possible drop not null;
-- The grade the platform holds: the last one it accepted.
alter table platform_grades add column held_points numeric(8, 2);
alter table platform_grades add column held_possible numeric(8, 2);
update platform_grades set held_points = points, held_possible = possible where problem is null;
