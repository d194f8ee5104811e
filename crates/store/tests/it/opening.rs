//! Opening: only ours, only whole, one program at a time, older files with all they hold.

use crate::{document, fresh, new_key, noon};
use pastry::assess::FormulaDocument;
use pastry::ingredient::IngredientDocument;
use pastry::order::OrderDocument;
use sqlx::{Connection, Executor, Row, SqliteConnection};
use std::os::unix::fs::PermissionsExt;
use std::path::Path;
use store::APPLICATION_ID;
use store::log::LogAsk;
use store::noun::{COMPONENT, INGREDIENT, ORDER};
use store::open::REST;
use store::{Opening, Store, StoreError, copies};

async fn raw(path: &Path) -> SqliteConnection {
    SqliteConnection::connect(&format!("sqlite://{}?mode=rwc", path.display())).await.unwrap()
}

/// Files as the program of that version left them: kept, closed, and written out as SQL.
const OLDER: [(i64, &str); 9] = [
    (1, include_str!("data/kitchen-1.sql")),
    (2, include_str!("data/kitchen-2.sql")),
    (3, include_str!("data/kitchen-3.sql")),
    (4, include_str!("data/kitchen-4.sql")),
    (5, include_str!("data/kitchen-5.sql")),
    (6, include_str!("data/kitchen-6.sql")),
    (7, include_str!("data/kitchen-7.sql")),
    (8, include_str!("data/kitchen-8.sql")),
    (9, include_str!("data/kitchen-9.sql")),
];

#[tokio::test]
async fn files_of_every_older_version_are_copied_and_opened_with_every_revision() {
    for (version, sql) in OLDER {
        let dir = tempfile::tempdir().unwrap();
        let file = dir.path().join("kitchen.db");
        let mut old = raw(&file).await;
        // Written out table by table: what refers comes before what it refers to.
        old.execute("PRAGMA foreign_keys = OFF").await.unwrap();
        old.execute(sqlx::AssertSqlSafe(sql.to_owned())).await.unwrap();
        old.close().await.unwrap();
        let before = copies::verify(&file).await.unwrap();
        assert_eq!(before.version, version);

        let store = Store::open(&file).await.unwrap();
        let listed = store.list::<FormulaDocument>().await.unwrap();
        let names: Vec<&str> = listed.iter().map(|own| own.name.as_str()).collect();
        assert_eq!(names, ["Bay milk drip, Friday", "Brandy soak"], "version {version}");
        let first = store.read::<FormulaDocument>(&listed[0].id, Some(1)).await.unwrap();
        assert_eq!((first.document.name.as_str(), first.newest_revision), ("Bay milk-chocolate drip", 2));
        let kitchen = store.kitchen().await.unwrap();
        assert_eq!((kitchen.name.as_str(), kitchen.currency.as_str()), ("Old counter", "EUR"));
        assert_eq!(kitchen.time_zone, None, "nobody said");
        assert_eq!((kitchen.altitude_m, kitchen.places.len()), (0.0, 0), "nobody said");
        assert_eq!(store.devices().await.unwrap(), store::devices::Settings::default(), "nobody said");
        assert_eq!(store.used_in(COMPONENT, INGREDIENT, "cream36").await.unwrap().len(), 1);
        assert_eq!(store.pantry_item("cream36").await.unwrap().revision, 1);
        if version >= 2 {
            assert_eq!(
                store.all::<IngredientDocument>().await.unwrap().iter().map(|own| own.revision).max(),
                Some(2)
            );
            assert_eq!(listed[0].tags, ["friday", "harbour"]);
        }
        let (family, word) = (&listed[0].shown.family, &listed[0].shown.family_word);
        assert_eq!((*word).as_str(), family.word(), "version {version}");
        if version >= 3 {
            let orders = store.list::<OrderDocument>().await.unwrap();
            assert_eq!((orders.len(), orders[0].revision), (1, 2));
            assert_eq!(orders[0].archived, version >= 4);
            let document = store.read::<OrderDocument>(&orders[0].id, None).await.unwrap().document;
            for key in document.cakes.iter().flat_map(|cake| cake.stack.component_keys()) {
                assert_eq!(
                    store.used_in(ORDER, COMPONENT, key).await.unwrap().len(),
                    usize::from(version < 4)
                );
            }
        }
        // A batch of before there was a log, or of one that kept no minutes, waits to be read into it; what stood in it stands there.
        let behind = store.log_behind(10).await.unwrap();
        assert_eq!(behind.len(), usize::from(version >= 8), "version {version}");
        let found = store.log(&LogAsk { words: "bay drip".to_owned(), ..LogAsk::default() }).await.unwrap();
        assert_eq!(found.lines.len(), usize::from(version >= 9), "version {version}");
        for key in behind {
            assert_eq!(store.batch_events(&key, 0).await.unwrap().len(), 5);
        }
        // It goes on from there, with hashes.
        store.save(&listed[0].id, &document("New", "1 g"), 2, &noon()).await.unwrap();
        store.close().await;
        let copy = dir.path().join(format!("kitchen-before-update-from-{version}.db"));
        assert_eq!(copies::verify(&copy).await.unwrap(), before, "the copy of version {version}");
        let after = copies::verify(&file).await.unwrap();
        for (was, is) in before.counts.iter().zip(&after.counts) {
            let more = i64::from(was.noun == "formula");
            assert_eq!((is.things, is.revisions), (was.things, was.revisions + more), "{}", was.noun);
        }
    }
}

#[tokio::test]
async fn a_second_program_on_a_kitchen_is_told_who_has_it() {
    let (_dir, store) = fresh().await;
    store.say_where("http://127.0.0.1:4710");
    let error = Store::open(store.path()).await.unwrap_err();
    assert!(matches!(error, StoreError::InUse { .. }), "{error:?}");
    let words = error.to_string();
    assert!(words.contains("http://127.0.0.1:4710") && words.contains("stop that one first"), "{words}");
    let path = store.path().to_owned();
    store.close().await;
    Store::open(&path).await.unwrap().close().await;
}

#[tokio::test]
async fn an_empty_kitchen_never_takes_the_place_of_one_that_was_there() {
    let (dir, store) = fresh().await;
    let path = store.path().to_owned();
    store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap();
    store.close().await;
    let away = dir.path().join("elsewhere.db");
    std::fs::rename(&path, &away).unwrap();
    let error = Store::open(&path).await.unwrap_err();
    assert!(matches!(error, StoreError::Gone { .. }), "{error:?}");
    assert!(error.to_string().contains("--new") && error.to_string().contains("restore"), "{error}");
    assert!(!path.exists(), "nothing was begun");
    // Emptied by a disk or a hand: the same.
    std::fs::write(&path, b"").unwrap();
    assert!(matches!(Store::open(&path).await, Err(StoreError::Gone { .. })));
    // On purpose it can be begun.
    let new = Store::open_as(&path, Opening { new: true, ..Opening::default() }).await.unwrap();
    assert!(new.list::<FormulaDocument>().await.unwrap().is_empty());
    new.close().await;
    // And one that is there is set aside, not written over.
    std::fs::rename(&away, &path).unwrap();
    let new = Store::open_as(&path, Opening { new: true, ..Opening::default() }).await.unwrap();
    assert!(new.list::<FormulaDocument>().await.unwrap().is_empty());
    new.close().await;
    let aside: Vec<_> = std::fs::read_dir(dir.path())
        .unwrap()
        .map(|entry| entry.unwrap().path())
        .filter(|path| path.to_string_lossy().contains("set-aside"))
        .collect();
    assert_eq!(aside.len(), 1, "{aside:?}");
    assert_eq!(copies::verify(&aside[0]).await.unwrap().counts[0].things, 1);
}

#[tokio::test]
async fn what_is_not_ours_too_new_or_damaged_is_refused_and_left_as_it_is() {
    let dir = tempfile::tempdir().unwrap();
    let text = dir.path().join("letter.db");
    std::fs::write(&text, "Dear cook, this is a letter and no kitchen at all. ".repeat(40)).unwrap();
    let foreign = dir.path().join("foreign.db");
    let mut other = raw(&foreign).await;
    other.execute("CREATE TABLE kitchen (a); CREATE TABLE other (b)").await.unwrap();
    other.close().await.unwrap();
    let numbered = dir.path().join("numbered.db");
    let mut other = raw(&numbered).await;
    other.execute("PRAGMA application_id = 77; PRAGMA user_version = 1").await.unwrap();
    other.close().await.unwrap();
    for path in [&text, &foreign, &numbered] {
        let before = std::fs::read(path).unwrap();
        let error = Store::open(path).await.unwrap_err();
        assert!(matches!(error, StoreError::NotOurs(_)), "{}: {error:?}", path.display());
        assert_eq!(std::fs::read(path).unwrap(), before, "{} was changed", path.display());
    }

    let newer = dir.path().join("newer.db");
    Store::open(&newer).await.unwrap().close().await;
    let mut hand = raw(&newer).await;
    hand.execute("INSERT INTO _sqlx_migrations SELECT 999, 'later', installed_on, 1, checksum, 1 FROM _sqlx_migrations LIMIT 1")
        .await
        .unwrap();
    hand.close().await.unwrap();
    let error = Store::open(&newer).await.unwrap_err();
    assert!(matches!(error, StoreError::Newer(_)), "{error:?}");

    let damaged = dir.path().join("damaged.db");
    let store = Store::open(&damaged).await.unwrap();
    for k in 0..40 {
        store.create(&new_key(), &document(&format!("{k}"), "1 g"), &noon()).await.unwrap();
    }
    store.close().await;
    let mut bytes = std::fs::read(&damaged).unwrap();
    let middle = bytes.len() / 4096 / 2 * 4096;
    bytes[middle..middle + 4096].fill(0x5a);
    std::fs::write(&damaged, &bytes).unwrap();
    let error = Store::open(&damaged).await.unwrap_err();
    assert!(matches!(error, StoreError::DamagedFile { .. }), "{error:?}");
    assert!(error.to_string().contains("restore"), "{error}");
}

#[tokio::test]
async fn a_kitchen_is_its_owners_alone_and_says_what_it_is() {
    let (_dir, store) = fresh().await;
    store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap();
    for ending in ["", "-wal"] {
        let path = format!("{}{ending}", store.path().display());
        let mode = std::fs::metadata(&path).unwrap().permissions().mode() & 0o777;
        assert_eq!(mode, 0o600, "{path}");
    }
    let path = store.path().to_owned();
    store.close().await;
    std::fs::set_permissions(&path, std::fs::Permissions::from_mode(0o644)).unwrap();
    let store = Store::open(&path).await.unwrap();
    assert_eq!(std::fs::metadata(&path).unwrap().permissions().mode() & 0o777, 0o600);
    let mut hand = raw(&path).await;
    let id: i64 =
        sqlx::query("PRAGMA application_id").fetch_one(&mut hand).await.unwrap().try_get(0).unwrap();
    assert_eq!(id, APPLICATION_ID);
    store.close().await;
}

/// Waits for a condition as long as it takes on a busy machine; the test's own limit is the runner's.
async fn until(mut held: impl FnMut() -> bool) {
    while !held() {
        tokio::time::sleep(REST / 20).await;
    }
}

#[tokio::test]
async fn a_file_that_rests_is_whole_without_its_log() {
    let (dir, store) = fresh().await;
    let made = store.create(&new_key(), &document("A", "1 g"), &noon()).await.unwrap();
    let log = format!("{}-wal", store.path().display());
    until(|| std::fs::metadata(&log).is_ok_and(|log| log.len() == 0)).await;
    // The program is still running; somebody copies the file alone, or the power goes.
    let alone = dir.path().join("alone.db");
    std::fs::copy(store.path(), &alone).unwrap();
    let copy = Store::open(&alone).await.unwrap();
    assert_eq!(copy.read::<FormulaDocument>(&made.id, None).await.unwrap(), made);
    copy.close().await;
}
