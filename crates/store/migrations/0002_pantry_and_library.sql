-- Prices and packs, ingredients of the kitchen's own, and order in the library.

ALTER TABLE kitchen ADD COLUMN currency TEXT NOT NULL DEFAULT 'EUR';

ALTER TABLE pantry_items ADD COLUMN pack_g REAL CHECK (pack_g > 0);
ALTER TABLE pantry_items ADD COLUMN pack_price REAL CHECK (pack_price >= 0);
ALTER TABLE pantry_items ADD COLUMN archived INTEGER NOT NULL DEFAULT 0 CHECK (archived IN (0, 1));

CREATE TABLE own_ingredients (
    key TEXT PRIMARY KEY CHECK (key LIKE 'own-%'),
    name TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL
) STRICT;

CREATE TABLE own_ingredient_revisions (
    key TEXT NOT NULL REFERENCES own_ingredients (key) ON DELETE RESTRICT,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (key, revision)
) STRICT;

CREATE TRIGGER own_ingredient_revisions_are_kept
BEFORE DELETE ON own_ingredient_revisions
BEGIN
    SELECT RAISE(ABORT, 'a revision is never deleted');
END;

CREATE TRIGGER own_ingredient_revisions_do_not_change
BEFORE UPDATE ON own_ingredient_revisions
BEGIN
    SELECT RAISE(ABORT, 'a revision is never changed');
END;

ALTER TABLE components ADD COLUMN archived INTEGER NOT NULL DEFAULT 0 CHECK (archived IN (0, 1));

CREATE TABLE component_tags (
    component_id TEXT NOT NULL REFERENCES components (id) ON DELETE CASCADE,
    tag TEXT NOT NULL CHECK (length(tag) BETWEEN 1 AND 40),
    PRIMARY KEY (component_id, tag)
) STRICT;

-- Which ingredients the newest revision of each component uses: asked whenever the pantry is opened.
CREATE TABLE component_ingredients (
    component_id TEXT NOT NULL REFERENCES components (id) ON DELETE CASCADE,
    ingredient TEXT NOT NULL,
    PRIMARY KEY (component_id, ingredient)
) STRICT;

CREATE INDEX component_ingredients_by_ingredient ON component_ingredients (ingredient);

INSERT OR IGNORE INTO component_ingredients (component_id, ingredient)
SELECT c.id, json_extract(line.value, '$.ingredient')
FROM components c
JOIN component_revisions r ON r.component_id = c.id AND r.revision = c.revision,
     json_each(r.document, '$.lines') AS line;
