//! Families over HTTP, and a demo kitchen that has one of each.

use crate::Kitchen;
use std::collections::BTreeSet;

#[tokio::test]
async fn every_family_has_starts_that_are_accepted_as_they_are() {
    let kitchen = Kitchen::open(false).await;
    let (_, families) = kitchen.get("/api/families").await;
    let families = families.as_array().unwrap().clone();
    assert_eq!(families.len(), 30);
    for family in &families {
        for job in family["jobs"].as_array().unwrap() {
            let (status, answer) = kitchen.post("/api/predict", &job["start"]).await;
            assert_eq!(status, 200, "{answer}");
            assert_eq!(answer["at"]["outcome"], "inside", "{} {}", family["word"], answer["at"]["headline"]);
            assert_eq!(answer["job"], job["job"]);
            assert_eq!(answer["measured"], job["measured"]);
            assert_eq!(answer["axis"], job["axis"]);
            assert_eq!(answer["history"], job["histories"][0]["history"]);
        }
    }
    kitchen.close().await;
}

#[tokio::test]
async fn every_demo_formula_does_its_job_but_the_one_that_shows_a_miss_and_every_family_has_one() {
    let kitchen = Kitchen::open(true).await;
    let (_, list) = kitchen.get("/api/components").await;
    let (mut families, mut misses) = (BTreeSet::new(), Vec::new());
    for each in list.as_array().unwrap() {
        let (_, component) = kitchen.get(&format!("/api/components/{}", each["id"].as_str().unwrap())).await;
        let (status, answer) = kitchen.post("/api/predict", &component["document"]).await;
        assert_eq!(status, 200, "{answer}");
        families.insert(each["family"].as_str().unwrap().to_owned());
        if answer["at"]["outcome"] != "inside" {
            misses.push(each["name"].as_str().unwrap().to_owned());
        }
    }
    assert_eq!(misses, ["Bay milk-chocolate drip"]);
    assert_eq!(families.len(), 30, "families without a demo formula: of 30, {families:?}");
    kitchen.close().await;
}
