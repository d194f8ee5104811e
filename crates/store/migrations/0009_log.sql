-- The log: one line a batch, worked out from its events and never written by hand; pictures of batches.

-- Batches whose line is behind what happened to them: it is worked out anew before the log is looked at.
CREATE TABLE log_behind (
    key TEXT PRIMARY KEY,
    -- It was tried, and the batch cannot be read: it is not tried again before something happens to it.
    unread INTEGER NOT NULL DEFAULT 0 CHECK (unread IN (0, 1))
) STRICT, WITHOUT ROWID;

INSERT INTO log_behind (key) SELECT key FROM things WHERE noun = 'batch';

CREATE TRIGGER log_is_behind_an_event
AFTER INSERT ON events
WHEN NEW.noun = 'batch'
BEGIN
    INSERT OR REPLACE INTO log_behind (key, unread) VALUES (NEW.key, 0);
END;

CREATE TRIGGER log_is_behind_a_batch
AFTER INSERT ON revisions
WHEN NEW.noun = 'batch'
BEGIN
    INSERT OR REPLACE INTO log_behind (key, unread) VALUES (NEW.key, 0);
END;

-- The number of a line is when its batch was made, so that the newest are read first without sorting.
CREATE TABLE log (
    id INTEGER PRIMARY KEY,
    key TEXT NOT NULL UNIQUE,
    family TEXT NOT NULL,
    job TEXT NOT NULL,
    component TEXT,
    room_c REAL NOT NULL,
    came TEXT,
    tests INTEGER NOT NULL
) STRICT;

-- What is shown of each, apart: what is looked through stays small.
CREATE TABLE log_lines (
    id INTEGER PRIMARY KEY REFERENCES log (id) ON DELETE CASCADE,
    line TEXT NOT NULL CHECK (json_valid(line))
) STRICT;

CREATE INDEX log_by_family ON log (family, id);
CREATE INDEX log_by_job ON log (job, id);
CREATE INDEX log_by_component ON log (component, id);
CREATE INDEX log_by_came ON log (came, id);
CREATE INDEX log_wrong ON log (id) WHERE came <> 'good';
CREATE INDEX log_tested ON log (id) WHERE tests > 0;

-- Ingredients and lots of each line.
CREATE TABLE log_of (
    kind TEXT NOT NULL CHECK (kind IN ('ingredient', 'lot')),
    thing TEXT NOT NULL,
    id INTEGER NOT NULL REFERENCES log (id) ON DELETE CASCADE,
    PRIMARY KEY (kind, thing, id)
) STRICT, WITHOUT ROWID;

CREATE INDEX log_of_by_id ON log_of (id);

CREATE VIRTUAL TABLE log_words USING fts5(
    words, content = '', contentless_delete = 1, tokenize = "unicode61 remove_diacritics 2", prefix = '2 3'
);

CREATE INDEX events_by_what ON events (noun, json_extract(event, '$.what'), key);

-- Pictures of batches, scaled down and without place and camera before they came here. One that is taken away is gone.
CREATE TABLE pictures (
    id TEXT PRIMARY KEY CHECK (length(id) BETWEEN 8 AND 64),
    key TEXT NOT NULL,
    kept_at TEXT NOT NULL,
    device TEXT CHECK (length(device) BETWEEN 1 AND 60),
    words TEXT NOT NULL CHECK (length(words) <= 400),
    bytes BLOB NOT NULL
) STRICT;

CREATE INDEX pictures_by_batch ON pictures (key, kept_at);
