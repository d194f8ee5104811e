//! Which jobs a family is used for, as the table of starting formulas has them.

use crate::formula::Family;
use crate::job::kind::Job;
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

/// The table of starts: a row for each family and job.
pub(crate) const TABLE: &str = include_str!("../../data/starts.csv");

#[derive(Deserialize)]
struct Row {
    family: Family,
    job: String,
}

static JOBS: LazyLock<BTreeMap<Family, Vec<&'static str>>> = LazyLock::new(|| {
    let mut jobs: BTreeMap<Family, Vec<&'static str>> = BTreeMap::new();
    for row in csv::Reader::from_reader(TABLE.as_bytes()).deserialize() {
        let row: Row = row.expect("the table of starts is well formed");
        let job: Job =
            serde_json::from_value(serde_json::json!({ "kind": row.job })).expect("a start names a job");
        jobs.entry(row.family).or_default().push(job.word());
    }
    jobs
});

/// Words of the jobs a family is used for, the usual first.
pub fn jobs(family: Family) -> &'static [&'static str] {
    JOBS.get(&family).map_or(&[], Vec::as_slice)
}
