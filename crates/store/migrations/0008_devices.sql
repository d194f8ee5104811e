-- The devices of a kitchen and where each is: {"devices": [...], "fridge_most_c": 8, "fridge_most_min": 20}; as usual while
-- nobody has set anything.

CREATE TABLE devices (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    settings TEXT CHECK (json_valid(settings)),
    revision INTEGER NOT NULL CHECK (revision >= 0),
    save_id TEXT
) STRICT;

INSERT INTO devices (id, revision) VALUES (1, 0);
