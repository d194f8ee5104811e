-- The clock on the kitchen's wall.

ALTER TABLE kitchen ADD COLUMN time_zone TEXT CHECK (length(time_zone) BETWEEN 1 AND 60);
