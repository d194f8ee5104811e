-- How high the kitchen lies, and what a probe has read of its own places: [{"place": "fridge", "h": 6.2}].

ALTER TABLE kitchen ADD COLUMN altitude_m REAL NOT NULL DEFAULT 0 CHECK (altitude_m BETWEEN -500 AND 6000);
ALTER TABLE kitchen ADD COLUMN places TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(places));
