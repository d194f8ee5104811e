PRAGMA application_id = 1399877169;
PRAGMA user_version = 0;
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
INSERT INTO "_sqlx_migrations" VALUES(2,'pantry and library','2026-11-27 14:16:06',1,X'76E53579BF0E581CE83B7B6A57E8CD0BC5A1C255A83D2AE99E69525BE3EE94D007EA4F705F91D7CA26AE72355A25BB53',4763555);
INSERT INTO "_sqlx_migrations" VALUES(3,'orders','2026-11-27 14:16:06',1,X'5578883C09A9AA0D0E0C87AEF9D72D0D025CDD9C8258D13D538726A9DBEE75CFE7273472EF30BE585AC776C3F5AB95F5',1119138);
INSERT INTO "_sqlx_migrations" VALUES(4,'kept','2026-11-27 18:34:33',1,X'B37CD847BD8245A17BAE1AA1F99666135BF936FA34BE4EE158A729984F46B9E399A779A1F29DD9D16EA9F939B37E3431',7373949);
INSERT INTO "_sqlx_migrations" VALUES(5,'things','2026-11-28 00:16:44',1,X'444A3C6EE5CE3074D8D617B2BE2BA8B6347976D484AD3AC57B5A5B2190F523F20A4C52B45BBF9E808361060A9A04111E',4261525);
INSERT INTO "_sqlx_migrations" VALUES(6,'time zone','2026-11-28 14:10:03',1,X'83EA8DE007D3820077EE05F9ABC68D09E1510844A6EA22C2E31566BB9FE2210F6D94A4BE57EC3753F4C5B92F04DBB0B5',1118287);
INSERT INTO "_sqlx_migrations" VALUES(7,'places','2026-11-29 05:20:11',1,X'123C5B95C7E6D0924A10B7551BCA4A4C0673A8ECD14C1550C12A3FD8ECF2BAF28874E4B2442F36B369F799E4F5879F12',402113);
INSERT INTO "_sqlx_migrations" VALUES(8,'devices','2026-11-29 20:02:41',1,X'57C610D85CC8C71FAB4879D6713339E680427DB2BC9859DEBD4C9991966E5C5A5401290B89CCA8B55077D5D133F4BA91',411207);
CREATE TABLE audit (
    id INTEGER PRIMARY KEY,
    at TEXT NOT NULL,
    device TEXT CHECK (length(device) BETWEEN 1 AND 60),
    what TEXT NOT NULL CHECK (length(what) BETWEEN 1 AND 20),
    noun TEXT NOT NULL,
    key TEXT NOT NULL,
    revision INTEGER
) STRICT;
CREATE TABLE devices (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    settings TEXT CHECK (json_valid(settings)),
    revision INTEGER NOT NULL CHECK (revision >= 0),
    save_id TEXT
) STRICT;
INSERT INTO "devices" VALUES(1,NULL,0,NULL);
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
INSERT INTO "events" VALUES('batch','01a22a95-0000-7000-8000-00000000000b',1,'old-event-1','2026-11-29T20:10:00Z','2026-11-29T20:10:01Z','Mixer tablet','8a50d1b91d11466913e8c680dc2527ada269b8d46c9519ff448fc7ed3ee63f27','{"what":"weighed","line":0,"grams":164.0,"by":"hand"}');
INSERT INTO "events" VALUES('batch','01a22a95-0000-7000-8000-00000000000b',2,'old-event-2','2026-11-29T20:11:00Z','2026-11-29T20:11:01Z','Mixer tablet','d6870e216d3e027b9421d452be747c197a31a6c537619c5989ec5cfbd6d9393b','{"what":"weighed","line":2,"grams":26.0,"by":"hand"}');
INSERT INTO "events" VALUES('batch','01a22a95-0000-7000-8000-00000000000b',3,'old-event-3','2026-11-29T20:12:00Z','2026-11-29T20:12:01Z','Mixer tablet','045107d359ffe343158ba5a664307271c03fbc93aacc0915b7716710bdbdcb78','{"what":"done","step":"chop"}');
INSERT INTO "events" VALUES('batch','01a22a95-0000-7000-8000-00000000000b',4,'old-event-4','2026-11-29T20:13:00Z','2026-11-29T20:13:01Z','Mixer tablet','f51fdb6e195b88376e545d5844b872c5463bf6766dd6773e59e0e808ba6e62e7','{"what":"weighed","line":1,"grams":76.0,"by":"hand"}');
INSERT INTO "events" VALUES('batch','01a22a95-0000-7000-8000-00000000000b',5,'old-event-5','2026-11-29T20:14:00Z','2026-11-29T20:14:01Z','Mixer tablet','0ea9eb257b6ec3293fb85acf2d5498b4ab088eeede7669514f9c30bd109afd03','{"what":"noted","words":"Crème left out overnight"}');
CREATE TABLE kitchen (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    name TEXT NOT NULL,
    room_temperature_c REAL NOT NULL CHECK (room_temperature_c BETWEEN 0 AND 45),
    measures TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1)
, currency TEXT NOT NULL DEFAULT 'EUR', save_id TEXT, time_zone TEXT CHECK (length(time_zone) BETWEEN 1 AND 60), altitude_m REAL NOT NULL DEFAULT 0 CHECK (altitude_m BETWEEN -500 AND 6000), places TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(places))) STRICT;
INSERT INTO "kitchen" VALUES(1,'Old counter',23.5,'us',3,'EUR','kitchen-four-1',NULL,0.0,'[]');
CREATE TABLE pantry_items (
    ingredient TEXT PRIMARY KEY,
    density_g_per_ml REAL CHECK (density_g_per_ml > 0),
    piece_g REAL CHECK (piece_g > 0),
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL
, pack_g REAL CHECK (pack_g > 0), pack_price REAL CHECK (pack_price >= 0), archived INTEGER NOT NULL DEFAULT 0 CHECK (archived IN (0, 1)), save_id TEXT) STRICT;
INSERT INTO "pantry_items" VALUES('cream36',1.01,NULL,1,'2026-11-27T14:16:09.118665001Z',1000.0,5.2,0,NULL);
CREATE TABLE pulse (
    id INTEGER PRIMARY KEY CHECK (id = 1),
    at TEXT NOT NULL
) STRICT;
CREATE TABLE revisions (
    noun TEXT NOT NULL CHECK (length(noun) BETWEEN 1 AND 20),
    key TEXT NOT NULL CHECK (length(key) BETWEEN 1 AND 200),
    revision INTEGER NOT NULL CHECK (revision >= 1),
    saved_at TEXT NOT NULL,
    -- Made by who saves, once for each save: the same id gets the same answer.
    save_id TEXT CHECK (length(save_id) BETWEEN 8 AND 300),
    -- SHA-256 of the document's text, in hexadecimal.
    hash TEXT NOT NULL CHECK (length(hash) = 64),
    document TEXT NOT NULL, saved_by TEXT CHECK (length(saved_by) BETWEEN 1 AND 60),
    PRIMARY KEY (noun, key, revision)
) STRICT, WITHOUT ROWID;
INSERT INTO "revisions" VALUES('batch','01a22a95-0000-7000-8000-00000000000b',1,'2026-11-29T20:10:00Z',NULL,'664066b7b0168a08239bc65869abc612ebdf75071772b2834a7b8373354e2f94','{"format":"bright-spoon/batch","version":1,"name":"Bay milk-chocolate drip","formula":{"format":"bright-spoon/formula","version":1,"name":"Bay milk-chocolate drip","note":"Bay leaf steeped in the cream overnight. For the chilled tier cake.","family":"ganache","measures":"us","lines":[{"ingredient":"milk40","amount":"164 g"},{"ingredient":"cream36","amount":"98 g"},{"ingredient":"dark70","amount":"26 g"},{"ingredient":"glucose40","amount":"22 g"},{"ingredient":"butter82","amount":"13.1 g"},{"ingredient":"salt","amount":"0.66 g"}],"work":{"job":{"kind":"drip","dose_ml":0.9,"shortest_mm":25.0,"longest_mm":70.0,"side_temperature_c":5.0},"temperature_c":26.0,"room_temperature_c":21.5}},"component":"01a21d5d-140a-71e8-95aa-5ba22a4e2658","revision":2,"steps":[{"key":"chop","what":"Chop the chocolate under 8 mm; drops need none of it.","kind":"hands","minutes":[3.29504,3.29504],"time":"3 min","until":"Even.","wrong":[{"seen":"lumps","why":"big pieces"}],"lines":[0,2]},{"key":"heat","what":"Heat the cream with glucose, honey and aromas.","kind":"hands","minutes":[4.29504,4.29504],"time":"4 min","temperature_c":[85.0,95.0],"until":"The first bubbles at the rim.","wrong":[{"seen":"thick later","why":"more than 2 % boiled away: weigh it back"}],"lines":[1,3,5]},{"key":"pour","what":"Pour it over all at once and shake it level.","kind":"hands","minutes":[0.5,0.5],"time":"0.5 min","until":"Covered."},{"key":"stand","what":"Leave it, lid on.","kind":"wait","minutes":[2.0,4.0],"time":"2 to 4 min","until":"The edges slump.","wrong":[{"seen":"cold lumps","why":"left longer than six minutes"}]},{"key":"stir","what":"Stir in small circles from the middle outwards, or blend with the head under, slowly.","kind":"hands","minutes":[1.82376,1.82376],"time":"2 min","temperature_c":[38.0,45.0],"until":"One deep gloss, elastic.","wrong":[{"seen":"split, oily","why":"under 32 °C, or too little water"},{"seen":"bubbles","why":"the blender was lifted"},{"seen":"grains","why":"chocolate left unmelted"}],"cautions":["Stick blender: unplug it before you clear the head."]},{"key":"butter","what":"Butter in at 35 to 40 °C, blended for a minute.","kind":"hands","minutes":[1.16188,1.16188],"time":"1 min","temperature_c":[35.0,40.0],"until":"Satin.","wrong":[{"seen":"oily","why":"above 42 °C"},{"seen":"specks","why":"below 30 °C"}],"lines":[4]},{"key":"film","what":"Press film onto the whole surface, no air under it.","kind":"hands","minutes":[1.0,1.0],"time":"1 min","until":"The film touches everywhere.","wrong":[{"seen":"a skin, drops of water","why":"film not touching"}]},{"key":"cool","what":"Cool it to its work: glaze 32 to 36 °C, drip 28 to 31 °C, spread, fill or pipe 22 to 25 °C, mask 20 to 23 °C.","kind":"wait","minutes":[0.0,15.0],"time":"0.5 to 15 min","temperature_c":[24.5,27.5],"until":"At the temperature of the job; rested for half a day where it must stand."}]}','Mixer tablet');
INSERT INTO "revisions" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658',1,'2026-11-27T14:16:08.970125829Z',NULL,'02b9c4e3acfefbd27b7dfc110a365e4c3d10743e728f8e03461cbfe724a39e46','{"format":"bright-spoon/formula","version":1,"name":"Bay milk-chocolate drip","note":"Bay leaf steeped in the cream overnight. For the chilled tier cake.","family":"ganache","measures":"us","lines":[{"ingredient":"milk40","amount":"150 g"},{"ingredient":"cream36","amount":"90 g"},{"ingredient":"dark70","amount":"24 g"},{"ingredient":"glucose40","amount":"20 g"},{"ingredient":"butter82","amount":"12 g"},{"ingredient":"salt","amount":"0.6 g"}],"work":{"job":{"kind":"drip","dose_ml":0.9,"shortest_mm":25.0,"longest_mm":70.0,"side_temperature_c":5.0},"temperature_c":26.0,"room_temperature_c":21.5}}',NULL);
INSERT INTO "revisions" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658',2,'2026-11-27T14:16:08.991522299Z',NULL,'e0e587036d9e806d74b4f2710be516e03c020fc8a702695ba52e8bfbedb9cd24','{"format":"bright-spoon/formula","version":1,"name":"Bay milk drip, Friday","note":"Bay leaf steeped in the cream overnight. For the chilled tier cake.","family":"ganache","measures":"us","lines":[{"ingredient":"milk40","amount":"210 g"},{"ingredient":"cream36","amount":"90 g"},{"ingredient":"dark70","amount":"24 g"},{"ingredient":"glucose40","amount":"20 g"},{"ingredient":"butter82","amount":"12 g"},{"ingredient":"salt","amount":"0.6 g"}],"work":{"job":{"kind":"drip","dose_ml":0.9,"shortest_mm":25.0,"longest_mm":70.0,"side_temperature_c":5.0},"temperature_c":26.0,"room_temperature_c":21.5}}',NULL);
INSERT INTO "revisions" VALUES('component','01a21d5d-1433-73e9-abff-ea791f1e8ccf',1,'2026-11-27T14:16:09.011801339Z',NULL,'9094ef5f4a0895cc9022eb1a359ac66e2c5cdc641640cc98e9843d5a2a8f043f','{"format":"bright-spoon/formula","version":1,"name":"Brandy soak","note":"Warm on cool sponge.","family":"syrup","measures":"us","lines":[{"ingredient":"sugar","amount":"200 g"},{"ingredient":"water","amount":"200 g"},{"ingredient":"brandy40","amount":"30 g"}],"work":{"job":{"kind":"soak","shallowest_mm":6.0,"deepest_mm":25.0,"time_s":120.0,"richness":"rich","sponge_g":300.0,"on_sponge_percent":45.0},"temperature_c":20.0,"room_temperature_c":21.5}}',NULL);
INSERT INTO "revisions" VALUES('ingredient','own-lantern-dark-62',1,'2026-11-27T14:16:09.107715092Z',NULL,'656b306c56eb4b2db61b98547e63a8c5165cd7cafca48abec787deded5dca838','{"format":"bright-spoon/ingredient","version":1,"key":"own-lantern-dark-62","name":"Lantern dark 62 %","also":["house dark"],"group":"chocolate","composition_percent":{"water":0.8,"cocoa_butter":37.5,"sucrose":36.6,"cocoa":24.5,"other":0.6},"allergens":["soya"],"origins":["plant"],"density_g_per_ml":0.71,"pack":{"pack_g":5000.0,"pack_price":61.0},"source":"label: cocoa 62 %, fat 37.5 g, sugars 36.6 g"}',NULL);
INSERT INTO "revisions" VALUES('ingredient','own-lantern-dark-62',2,'2026-11-27T14:16:09.142865813Z',NULL,'d0c19c94686f6f6f1aa15fb717dca15c2214c6a452f5417d90ffcc1cb0334a20','{"format":"bright-spoon/ingredient","version":1,"key":"own-lantern-dark-62","name":"Lantern dark 62 % (new sack)","also":["house dark"],"group":"chocolate","composition_percent":{"water":0.8,"cocoa_butter":37.5,"sucrose":36.6,"cocoa":24.5,"other":0.6},"allergens":["soya"],"origins":["plant"],"density_g_per_ml":0.71,"pack":{"pack_g":5000.0,"pack_price":61.0},"source":"label: cocoa 62 %, fat 37.5 g, sugars 36.6 g"}',NULL);
INSERT INTO "revisions" VALUES('ingredient','own-meadow-cream-38',1,'2026-11-27T14:16:09.107715092Z',NULL,'e72cf36435a24377a7d6b4a86c94c7a5431ed757fad23ff191dbee7d6e7c2347','{"format":"bright-spoon/ingredient","version":1,"key":"own-meadow-cream-38","name":"Meadow cream 38 %","also":["farm cream"],"group":"dairy","composition_percent":{"water":56.2,"milk_fat":38.0,"lactose":2.9,"milk_protein":2.0,"salt":0.08,"other":0.82},"fat_in_globules":true,"allergens":["milk"],"origins":["milk"],"density_g_per_ml":0.995,"pack":{"pack_g":2000.0,"pack_price":11.4},"source":"label of the dairy, read 3 November","note":"Comes Tuesdays and Fridays."}',NULL);
INSERT INTO "revisions" VALUES('ingredient','own-roasted-pear-puree',1,'2026-11-27T14:16:09.107715092Z',NULL,'4b95e3d3651c525528753b2431fdbcdb40717b1a8e31ac84ec022cadcf41d192','{"format":"bright-spoon/ingredient","version":1,"key":"own-roasted-pear-puree","name":"Roasted pear puree, reduced","group":"fruit","composition_percent":{"water":70.0,"sucrose":4.0,"glucose":6.5,"fructose":12.5,"fibre":3.2,"pectin":0.8,"acid":0.6,"other":2.4},"origins":["plant"],"pack":{"pack_g":1000.0,"pack_price":5.2},"source":"weighed: boiled to half; refractometer 26 °Bx"}',NULL);
INSERT INTO "revisions" VALUES('order','01a21d5d-144f-721d-81f5-ac9d354f3d27',1,'2026-11-27T14:16:09.039175012Z',NULL,'059a8092ff65ab70fb6e56e7b031975b1cfe496486dcf828d444e91e11a659c2','{"format":"bright-spoon/order","version":1,"name":"Thursday domes","note":"Two trays for the counter.","served_at":"2026-12-03T09:00:00","made_on":"2026-12-01","servings":24,"room_temperature_c":21.5,"cakes":[{"stack":{"format":"bright-spoon/stack","version":1,"name":"Blackcurrant and pear domes","tiers":[{"body":{"shape":"dome","diameter_mm":70.0,"height_mm":35.0},"layers":[{"kind":"filling","component":"20-blackcurrant-domes","task":"set","inserts":[{"bake":"almond","diameter_mm":62.0,"thickness_mm":6.0,"above_mm":0.0},{"component":"34-pear-cider-jelly","diameter_mm":40.0,"thickness_mm":9.0,"above_mm":10.0}]}],"glaze":{"component":"35-winter-sky-glaze","side_mm":1.5}}],"bakes":[{"key":"almond","name":"Almond sponge","sponge":"joconde","lines":[{"ingredient":"egg","amount":"200 g"},{"ingredient":"icing","amount":"140 g"},{"ingredient":"almond_paste","amount":"140 g"},{"ingredient":"flour","amount":"40 g"},{"ingredient":"white","amount":"130 g"},{"ingredient":"sugar","amount":"30 g"},{"ingredient":"butter82","amount":"30 g"}],"measures":"us","oven_loss_percent":12.0}],"serve_c":8.0,"transport_c":6.0},"count":24}]}',NULL);
INSERT INTO "revisions" VALUES('order','01a21d5d-144f-721d-81f5-ac9d354f3d27',2,'2026-11-27T14:16:09.054206201Z',NULL,'a30a343611ac9d2ed6f6c28feb146024d63bb91c7841f3e674b284619e4dad24','{"format":"bright-spoon/order","version":1,"name":"Thursday domes, more","note":"Two trays for the counter.","served_at":"2026-12-03T09:00:00","made_on":"2026-12-01","servings":24,"room_temperature_c":21.5,"cakes":[{"stack":{"format":"bright-spoon/stack","version":1,"name":"Blackcurrant and pear domes","tiers":[{"body":{"shape":"dome","diameter_mm":70.0,"height_mm":35.0},"layers":[{"kind":"filling","component":"20-blackcurrant-domes","task":"set","inserts":[{"bake":"almond","diameter_mm":62.0,"thickness_mm":6.0,"above_mm":0.0},{"component":"34-pear-cider-jelly","diameter_mm":40.0,"thickness_mm":9.0,"above_mm":10.0}]}],"glaze":{"component":"35-winter-sky-glaze","side_mm":1.5}}],"bakes":[{"key":"almond","name":"Almond sponge","sponge":"joconde","lines":[{"ingredient":"egg","amount":"200 g"},{"ingredient":"icing","amount":"140 g"},{"ingredient":"almond_paste","amount":"140 g"},{"ingredient":"flour","amount":"40 g"},{"ingredient":"white","amount":"130 g"},{"ingredient":"sugar","amount":"30 g"},{"ingredient":"butter82","amount":"30 g"}],"measures":"us","oven_loss_percent":12.0}],"serve_c":8.0,"transport_c":6.0},"count":24}]}',NULL);
CREATE TABLE tags (
    noun TEXT NOT NULL,
    key TEXT NOT NULL,
    tag TEXT NOT NULL CHECK (length(tag) BETWEEN 1 AND 40),
    PRIMARY KEY (noun, key, tag),
    FOREIGN KEY (noun, key) REFERENCES things (noun, key) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
INSERT INTO "tags" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','friday');
INSERT INTO "tags" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','harbour');
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
INSERT INTO "things" VALUES('batch','01a22a95-0000-7000-8000-00000000000b','Bay milk-chocolate drip',1,'2026-11-29T20:10:00Z','2026-11-29T20:10:00Z',0,'{"made_for": []}');
INSERT INTO "things" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','Bay milk drip, Friday',2,'2026-11-27T14:16:08.970125829Z','2026-11-27T14:16:08.991522299Z',0,'{"family":"ganache","family_word":"ganache","job":"drip"}');
INSERT INTO "things" VALUES('component','01a21d5d-1433-73e9-abff-ea791f1e8ccf','Brandy soak',1,'2026-11-27T14:16:09.011801339Z','2026-11-27T14:16:09.011801339Z',0,'{"family":"syrup","family_word":"soaking syrup","job":"soak"}');
INSERT INTO "things" VALUES('ingredient','own-lantern-dark-62','Lantern dark 62 % (new sack)',2,'2026-11-27T14:16:09.142865813Z','2026-11-27T14:16:09.142865813Z',0,'{}');
INSERT INTO "things" VALUES('ingredient','own-meadow-cream-38','Meadow cream 38 %',1,'2026-11-27T14:16:09.107715092Z','2026-11-27T14:16:09.107715092Z',0,'{}');
INSERT INTO "things" VALUES('ingredient','own-roasted-pear-puree','Roasted pear puree, reduced',1,'2026-11-27T14:16:09.107715092Z','2026-11-27T14:16:09.107715092Z',0,'{}');
INSERT INTO "things" VALUES('order','01a21d5d-144f-721d-81f5-ac9d354f3d27','Thursday domes, more',2,'2026-11-27T14:16:09.039175012Z','2026-11-27T14:16:09.054206201Z',1,'{"served_at":"2026-12-03T09:00:00","pieces":24}');
CREATE TABLE uses (
    noun TEXT NOT NULL,
    key TEXT NOT NULL,
    used_noun TEXT NOT NULL,
    used_key TEXT NOT NULL,
    PRIMARY KEY (noun, key, used_noun, used_key),
    FOREIGN KEY (noun, key) REFERENCES things (noun, key) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
INSERT INTO "uses" VALUES('batch','01a22a95-0000-7000-8000-00000000000b','component','01a21d5d-140a-71e8-95aa-5ba22a4e2658');
INSERT INTO "uses" VALUES('order','01a21d5d-144f-721d-81f5-ac9d354f3d27','component','20-blackcurrant-domes');
INSERT INTO "uses" VALUES('order','01a21d5d-144f-721d-81f5-ac9d354f3d27','component','34-pear-cider-jelly');
INSERT INTO "uses" VALUES('order','01a21d5d-144f-721d-81f5-ac9d354f3d27','component','35-winter-sky-glaze');
INSERT INTO "uses" VALUES('component','01a21d5d-1433-73e9-abff-ea791f1e8ccf','ingredient','brandy40');
INSERT INTO "uses" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','ingredient','butter82');
INSERT INTO "uses" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','ingredient','cream36');
INSERT INTO "uses" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','ingredient','dark70');
INSERT INTO "uses" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','ingredient','glucose40');
INSERT INTO "uses" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','ingredient','milk40');
INSERT INTO "uses" VALUES('component','01a21d5d-140a-71e8-95aa-5ba22a4e2658','ingredient','salt');
INSERT INTO "uses" VALUES('component','01a21d5d-1433-73e9-abff-ea791f1e8ccf','ingredient','sugar');
INSERT INTO "uses" VALUES('component','01a21d5d-1433-73e9-abff-ea791f1e8ccf','ingredient','water');
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
CREATE TRIGGER revisions_are_not_replaced
BEFORE INSERT ON revisions
WHEN EXISTS (
    SELECT 1 FROM revisions
    WHERE (noun = NEW.noun AND key = NEW.key AND revision = NEW.revision) OR save_id = NEW.save_id
)
BEGIN
    SELECT RAISE(ABORT, 'a revision is never replaced');
END;
CREATE INDEX uses_by_used ON uses (used_noun, used_key);
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
-- The log: one line a batch, worked out from its events and never written by hand; pictures of batches.

-- Batches whose line is behind what happened to them: it is worked out anew before the log is looked at.
CREATE TABLE log_behind (
    key TEXT PRIMARY KEY,
    -- It was tried, and the batch cannot be read: it is not tried again before something happens to it.
    unread INTEGER NOT NULL DEFAULT 0 CHECK (unread IN (0, 1))
) STRICT, WITHOUT ROWID;


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
INSERT INTO "_sqlx_migrations" VALUES(9,'log','2026-11-30 04:50:21',1,X'ECD09E2F6E05A4668351E40A2F4C5192ACF800979CAF2424858556A274BC93E18E45BAF03BECE8756F61C8D663E59424',1204117);
INSERT INTO log VALUES(7356346368000,'01a22a95-0000-7000-8000-00000000000b','ganache','drip',NULL,21.0,NULL,0);
INSERT INTO log_lines VALUES(7356346368000,'{"key":"01a22a95-0000-7000-8000-00000000000b","name":"Bay milk-chocolate drip","family":"ganache","family_word":"ganache","job":"drip","at":"2026-11-29T20:10:00Z","running":true,"written_in":false,"component":null,"revision":null,"school":null,"room_c":21.0,"made_for":[],"in_g":266.0,"yielded_g":null,"came":null,"came_words":null,"spoon":null,"notes":[],"changed":[],"tests":0,"ingredients":["milk40","cream36","dark70"],"lots":[],"devices":["Mixer tablet"]}');
INSERT INTO log_of VALUES('ingredient','cream36',7356346368000);
INSERT INTO log_of VALUES('ingredient','dark70',7356346368000);
INSERT INTO log_of VALUES('ingredient','milk40',7356346368000);
INSERT INTO log_words (rowid, words) VALUES(7356346368000,'Bay milk chocolate drip ganache drip Mixer tablet');
COMMIT;
