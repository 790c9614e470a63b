-- How much of a recording has been listened to, from 0 to 1; null where the engine does not tell.
alter table speech_jobs add column progress real check (progress between 0 and 1);
