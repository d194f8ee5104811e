//! Each module may use only those below it.

use std::fs;
use std::path::{Path, PathBuf};

const ORDER: [&str; 23] = [
    "belief",
    "units",
    "ingredient",
    "formula",
    "rheology",
    "heat",
    "job",
    "bench_test",
    "learn",
    "assess",
    "balance",
    "swap",
    "scale",
    "clock",
    "method",
    "stack",
    "order",
    "day",
    "exchange",
    "rescue",
    "batch",
    "log",
    "trainer",
];

fn files(dir: &Path, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(dir).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files(&path, found);
        } else if path.extension().is_some_and(|extension| extension == "rs") {
            found.push(path);
        }
    }
}

#[test]
fn modules_use_only_those_below_them() {
    let src = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let mut wrong = Vec::new();
    let mut modules: Vec<String> = fs::read_dir(&src)
        .unwrap()
        .map(|entry| entry.unwrap().path())
        .filter(|path| path.is_dir())
        .map(|path| path.file_name().unwrap().to_string_lossy().into_owned())
        .collect();
    modules.sort();
    let mut known = ORDER.map(str::to_owned).to_vec();
    known.sort();
    assert_eq!(modules, known, "a module is missing from the order");
    for (rank, module) in ORDER.iter().enumerate() {
        let mut found = Vec::new();
        files(&src.join(module), &mut found);
        for file in found {
            let text = fs::read_to_string(&file).unwrap();
            for above in &ORDER[rank + 1..] {
                if text.contains(&format!("crate::{above}::")) {
                    wrong.push(format!("{} uses {above}", file.display()));
                }
            }
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}
