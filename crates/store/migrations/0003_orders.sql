-- Orders with all their revisions. Their cakes are inside the document.

CREATE TABLE orders (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    served_at TEXT,
    pieces INTEGER NOT NULL CHECK (pieces >= 0),
    revision INTEGER NOT NULL CHECK (revision >= 1),
    created_at TEXT NOT NULL,
    saved_at TEXT NOT NULL,
    archived INTEGER NOT NULL DEFAULT 0 CHECK (archived IN (0, 1))
) STRICT;

CREATE TABLE order_revisions (
    order_id TEXT NOT NULL REFERENCES orders (id),
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (order_id, revision)
) STRICT;
