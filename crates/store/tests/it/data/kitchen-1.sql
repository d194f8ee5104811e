BEGIN TRANSACTION;
CREATE TABLE _sqlx_migrations (
    version BIGINT PRIMARY KEY,
    description TEXT NOT NULL,
    installed_on TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
    success BOOLEAN NOT NULL,
    checksum BLOB NOT NULL,
    execution_time BIGINT NOT NULL
);
INSERT INTO "_sqlx_migrations" VALUES(1,'kitchen','2026-11-27 14:16:06',1,X'827280C47B68C9DD74FFDF7ED71DA982A4EACE09D59AD36D90ACB2E20CEE8DD07BFB7D91007F2A81AC3490253890ED41',1770702);
CREATE TABLE component_revisions (
    component_id TEXT NOT NULL REFERENCES components (id) ON DELETE RESTRICT,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (component_id, revision)
) STRICT;
INSERT INTO "component_revisions" VALUES('01a21d5d-140a-71e8-95aa-5ba22a4e2658',1,'2026-11-27T14:16:08.970125829Z','{"format":"bright-spoon/formula","version":1,"name":"Bay milk-chocolate drip","note":"Bay leaf steeped in the cream overnight. For the chilled tier cake.","family":"ganache","measures":"us","lines":[{"ingredient":"milk40","amount":"150 g"},{"ingredient":"cream36","amount":"90 g"},{"ingredient":"dark70","amount":"24 g"},{"ingredient":"glucose40","amount":"20 g"},{"ingredient":"butter82","amount":"12 g"},{"ingredient":"salt","amount":"0.6 g"}],"work":{"job":{"kind":"drip","dose_ml":0.9,"shortest_mm":25.0,"longest_mm":70.0,"side_temperature_c":5.0},"temperature_c":26.0,"room_temperature_c":21.5}}');
INSERT INTO "component_revisions" VALUES('01a21d5d-140a-71e8-95aa-5ba22a4e2658',2,'2026-11-27T14:16:08.991522299Z','{"format":"bright-spoon/formula","version":1,"name":"Bay milk drip, Friday","note":"Bay leaf steeped in the cream overnight. For the chilled tier cake.","family":"ganache","measures":"us","lines":[{"ingredient":"milk40","amount":"210 g"},{"ingredient":"cream36","amount":"90 g"},{"ingredient":"dark70","amount":"24 g"},{"ingredient":"glucose40","amount":"20 g"},{"ingredient":"butter82","amount":"12 g"},{"ingredient":"salt","amount":"0.6 g"}],"work":{"job":{"kind":"drip","dose_ml":0.9,"shortest_mm":25.0,"longest_mm":70.0,"side_temperature_c":5.0},"temperature_c":26.0,"room_temperature_c":21.5}}');
INSERT INTO "component_revisions" VALUES('01a21d5d-1433-73e9-abff-ea791f1e8ccf',1,'2026-11-27T14:16:09.011801339Z','{"format":"bright-spoon/formula","version":1,"name":"Brandy soak","note":"Warm on cool sponge.","family":"syrup","measures":"us","lines":[{"ingredient":"sugar","amount":"200 g"},{"ingredient":"water","amount":"200 g"},{"ingredient":"brandy40","amount":"30 g"}],"work":{"job":{"kind":"soak","shallowest_mm":6.0,"deepest_mm":25.0,"time_s":120.0,"richness":"rich","sponge_g":300.0,"on_sponge_percent":45.0},"temperature_c":20.0,"room_temperature_c":21.5}}');
CREATE TABLE components (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    family TEXT NOT NULL,
    job TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    created_at TEXT NOT NULL,
    saved_at TEXT NOT NULL
) STRICT;
INSERT INTO "components" VALUES('01a21d5d-140a-71e8-95aa-5ba22a4e2658','Bay milk drip, Friday','ganache','drip',2,'2026-11-27T14:16:08.970125829Z','2026-11-27T14:16:08.991522299Z');
INSERT INTO "components" VALUES('01a21d5d-1433-73e9-abff-ea791f1e8ccf','Brandy soak','syrup','soak',1,'2026-11-27T14:16:09.011801339Z','2026-11-27T14:16:09.011801339Z');
CREATE TABLE kitchen (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    name TEXT NOT NULL,
    room_temperature_c REAL NOT NULL CHECK (room_temperature_c BETWEEN 0 AND 45),
    measures TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1)
) STRICT;
INSERT INTO "kitchen" VALUES(1,'Old counter',23.5,'us',2);
CREATE TABLE pantry_items (
    ingredient TEXT PRIMARY KEY,
    density_g_per_ml REAL CHECK (density_g_per_ml > 0),
    piece_g REAL CHECK (piece_g > 0),
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL
) STRICT;
INSERT INTO "pantry_items" VALUES('cream36',1.01,NULL,1,'2026-11-27T14:16:09.118665001Z');
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
COMMIT;
