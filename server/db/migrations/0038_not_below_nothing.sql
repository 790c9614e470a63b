-- Negative extra points once made results below 0, which no page could show.
update submissions set points = 0, percentage = 0 where points < 0;
