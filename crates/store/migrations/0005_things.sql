-- What lists show of everything that is kept, in one form; who saved; what happened; events.
-- What the older tables hold is carried over by the program (store/src/upgrade.rs), which then takes them away.

ALTER TABLE revisions ADD COLUMN saved_by TEXT CHECK (length(saved_by) BETWEEN 1 AND 60);

-- Everything that is kept, at its newest revision: made anew with every save.
CREATE TABLE things (
    noun TEXT NOT NULL,
    key TEXT NOT NULL,
    name TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    created_at TEXT NOT NULL,
    saved_at TEXT NOT NULL,
    archived INTEGER NOT NULL DEFAULT 0 CHECK (archived IN (0, 1)),
    -- What lists show beside the name, a JSON object.
    shown TEXT NOT NULL,
    PRIMARY KEY (noun, key)
) STRICT, WITHOUT ROWID;

CREATE TABLE tags (
    noun TEXT NOT NULL,
    key TEXT NOT NULL,
    tag TEXT NOT NULL CHECK (length(tag) BETWEEN 1 AND 40),
    PRIMARY KEY (noun, key, tag),
    FOREIGN KEY (noun, key) REFERENCES things (noun, key) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

-- What the newest revision of each is made with.
CREATE TABLE uses (
    noun TEXT NOT NULL,
    key TEXT NOT NULL,
    used_noun TEXT NOT NULL,
    used_key TEXT NOT NULL,
    PRIMARY KEY (noun, key, used_noun, used_key),
    FOREIGN KEY (noun, key) REFERENCES things (noun, key) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

CREATE INDEX uses_by_used ON uses (used_noun, used_key);

-- Who wrote what and when, in the transaction that wrote it.
CREATE TABLE audit (
    id INTEGER PRIMARY KEY,
    at TEXT NOT NULL,
    device TEXT CHECK (length(device) BETWEEN 1 AND 60),
    what TEXT NOT NULL CHECK (length(what) BETWEEN 1 AND 20),
    noun TEXT NOT NULL,
    key TEXT NOT NULL,
    revision INTEGER
) STRICT;

CREATE INDEX audit_by_thing ON audit (noun, key);

CREATE TRIGGER audit_is_kept
BEFORE DELETE ON audit
BEGIN
    SELECT RAISE(ABORT, 'a line of the audit is never deleted');
END;

CREATE TRIGGER audit_does_not_change
BEFORE UPDATE ON audit
BEGIN
    SELECT RAISE(ABORT, 'a line of the audit is never changed');
END;

CREATE TRIGGER audit_is_not_replaced
BEFORE INSERT ON audit
WHEN EXISTS (SELECT 1 FROM audit WHERE id = NEW.id)
BEGIN
    SELECT RAISE(ABORT, 'a line of the audit is never replaced');
END;

-- What happens to a thing while it is made: events are only added, in the order they came.
CREATE TABLE events (
    noun TEXT NOT NULL CHECK (length(noun) BETWEEN 1 AND 20),
    key TEXT NOT NULL CHECK (length(key) BETWEEN 1 AND 200),
    place INTEGER NOT NULL CHECK (place >= 1),
    -- Made on the device that wrote it: the same id again adds nothing.
    id TEXT NOT NULL CHECK (length(id) BETWEEN 8 AND 64),
    -- By the clock of the device.
    at TEXT NOT NULL,
    kept_at TEXT NOT NULL,
    device TEXT CHECK (length(device) BETWEEN 1 AND 60),
    hash TEXT NOT NULL CHECK (length(hash) = 64),
    event TEXT NOT NULL,
    PRIMARY KEY (noun, key, place)
) STRICT, WITHOUT ROWID;

CREATE UNIQUE INDEX events_by_id ON events (id);

CREATE TRIGGER events_are_kept
BEFORE DELETE ON events
BEGIN
    SELECT RAISE(ABORT, 'an event is never deleted');
END;

CREATE TRIGGER events_do_not_change
BEFORE UPDATE ON events
BEGIN
    SELECT RAISE(ABORT, 'an event is never changed');
END;

CREATE TRIGGER events_are_not_replaced
BEFORE INSERT ON events
WHEN EXISTS (SELECT 1 FROM events WHERE (noun = NEW.noun AND key = NEW.key AND place = NEW.place) OR id = NEW.id)
BEGIN
    SELECT RAISE(ABORT, 'an event is never replaced');
END;
