-- How long the steps of each batch took, over what they were planned to take: worked out from its events with its line of the log.

CREATE TABLE log_minutes (
    id INTEGER NOT NULL REFERENCES log (id) ON DELETE CASCADE,
    school TEXT NOT NULL,
    step TEXT NOT NULL,
    times REAL NOT NULL CHECK (times > 0),
    PRIMARY KEY (id, school, step)
) STRICT, WITHOUT ROWID;

-- Every line is worked out anew, with its minutes.
INSERT OR REPLACE INTO log_behind (key, unread) SELECT key, 0 FROM things WHERE noun = 'batch';
