-- What was tried last may be to take a grade back: then there are no points.
alter table platform_grades alter column points drop not null;
alter table platform_grades alter column possible drop not null;
-- What the platform holds, as far as it has said that something arrived.
alter table platform_grades add column held_points numeric(8, 2);
alter table platform_grades add column held_possible numeric(8, 2);
update platform_grades set held_points = points, held_possible = possible where problem is null;
