-- Which parts of a recording somebody has played, as stretches in seconds, in order and apart from one another.
alter table listenings add column played jsonb not null default '[]';
