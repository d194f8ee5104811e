-- One history for everything that is kept: written once, never changed, deleted or replaced.
-- What the three older tables hold is carried over by the program (store/src/upgrade.rs), which works out the
-- hash of every document and then takes the old tables away.

CREATE TABLE revisions (
    noun TEXT NOT NULL CHECK (length(noun) BETWEEN 1 AND 20),
    key TEXT NOT NULL CHECK (length(key) BETWEEN 1 AND 200),
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL,
    -- Made by who saves, once for each save: the same id gets the same answer.
    save_id TEXT CHECK (length(save_id) BETWEEN 8 AND 300),
    -- SHA-256 of the document's text, in hexadecimal.
    hash TEXT NOT NULL CHECK (length(hash) = 64),
    document TEXT NOT NULL,
    PRIMARY KEY (noun, key, revision)
) STRICT, WITHOUT ROWID;

CREATE UNIQUE INDEX revisions_by_save ON revisions (save_id) WHERE save_id IS NOT NULL;

CREATE TRIGGER revisions_are_kept
BEFORE DELETE ON revisions
BEGIN
    SELECT RAISE(ABORT, 'a revision is never deleted');
END;

CREATE TRIGGER revisions_do_not_change
BEFORE UPDATE ON revisions
BEGIN
    SELECT RAISE(ABORT, 'a revision is never changed');
END;

-- REPLACE takes the old row away without asking the trigger above: so it is stopped before it begins.
CREATE TRIGGER revisions_are_not_replaced
BEFORE INSERT ON revisions
WHEN EXISTS (
    SELECT 1 FROM revisions
    WHERE (noun = NEW.noun AND key = NEW.key AND revision = NEW.revision) OR save_id = NEW.save_id
)
BEGIN
    SELECT RAISE(ABORT, 'a revision is never replaced');
END;

-- The save that made the state these rows are in.
ALTER TABLE kitchen ADD COLUMN save_id TEXT;
ALTER TABLE pantry_items ADD COLUMN save_id TEXT;

-- Written to see whether the file can be written.
CREATE TABLE pulse (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    at TEXT NOT NULL
) STRICT;
