//! Backup, verify and restore as a cook types them.

use crate::{Kitchen, formula};
use std::path::Path;
use std::process::{Command, Output};

fn run(words: &[&str], file: &Path, data: Option<&Path>) -> Output {
    let mut command = Command::new(env!("CARGO_BIN_EXE_bright-spoon"));
    command.args(words).arg(file);
    if let Some(data) = data {
        command.arg("--data").arg(data);
    }
    command.output().unwrap()
}

fn said(output: &Output) -> String {
    format!("{}{}", String::from_utf8_lossy(&output.stdout), String::from_utf8_lossy(&output.stderr))
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_served_kitchen_is_copied_checked_and_put_back_when_it_is_not_served() {
    let kitchen = Kitchen::open(false).await;
    assert_eq!(kitchen.post("/api/components", &formula()).await.0, 201);
    let data = kitchen.dir.path().join("kitchen.db");
    let copy = kitchen.dir.path().join("copy.db");
    let made = run(&["backup"], &copy, Some(&data));
    assert!(made.status.success(), "{}", said(&made));
    assert!(said(&made).contains("1 formula in 1 versions"), "{}", said(&made));
    let twice = run(&["backup"], &copy, Some(&data));
    assert!(!twice.status.success() && said(&twice).contains("not overwritten"), "{}", said(&twice));
    let whole = run(&["verify"], &copy, None);
    assert!(whole.status.success() && said(&whole).contains("is whole"), "{}", said(&whole));

    let refused = run(&["restore"], &copy, Some(&data));
    assert!(!refused.status.success() && said(&refused).contains("in use"), "{}", said(&refused));
    assert_eq!(kitchen.post("/api/components", &formula()).await.0, 201);
    let dir = kitchen.close().await;
    let restored = run(&["restore"], &copy, Some(&data));
    assert!(restored.status.success() && said(&restored).contains("stands aside"), "{}", said(&restored));
    assert_eq!(store::copies::verify(&data).await.unwrap().counts[0].things, 1);
    drop(dir);
}

#[test]
fn what_is_gone_or_no_kitchen_is_said() {
    let dir = tempfile::tempdir().unwrap();
    let none = run(&["verify"], &dir.path().join("none.db"), None);
    assert!(!none.status.success() && said(&none).contains("there is no kitchen's file"), "{}", said(&none));
    let letter = dir.path().join("letter.db");
    std::fs::write(&letter, "a letter ".repeat(200)).unwrap();
    let other = run(&["verify"], &letter, None);
    assert!(!other.status.success() && said(&other).contains("no kitchen's file of Bright Spoon"));
}
