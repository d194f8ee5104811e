-- One kitchen, its own weights of things, its components and every revision of them.

CREATE TABLE kitchen (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    name TEXT NOT NULL,
    room_temperature_c REAL NOT NULL CHECK (room_temperature_c BETWEEN 0 AND 45),
    measures TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1)
) STRICT;

INSERT INTO kitchen (id, name, room_temperature_c, measures, revision)
VALUES (1, 'My kitchen', 21.0, 'us', 1);

CREATE TABLE pantry_items (
    ingredient TEXT PRIMARY KEY,
    density_g_per_ml REAL CHECK (density_g_per_ml > 0),
    piece_g REAL CHECK (piece_g > 0),
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL
) STRICT;

CREATE TABLE components (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    family TEXT NOT NULL,
    job TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    created_at TEXT NOT NULL,
    saved_at TEXT NOT NULL
) STRICT;

-- A revision is written once and never changed.
CREATE TABLE component_revisions (
    component_id TEXT NOT NULL REFERENCES components (id) ON DELETE RESTRICT,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (component_id, revision)
) STRICT;

CREATE TRIGGER component_revisions_are_kept
BEFORE DELETE ON component_revisions
BEGIN
    SELECT RAISE(ABORT, 'a revision is never deleted');
END;

CREATE TRIGGER component_revisions_do_not_change
BEFORE UPDATE ON component_revisions
BEGIN
    SELECT RAISE(ABORT, 'a revision is never changed');
END;
