//! The trainer, over real HTTP: it asks, judges what was shown, and keeps the score of each person.

use crate::learned::tested;
use crate::{Kitchen, formula};
use serde_json::{Value, json};

#[tokio::test]
async fn the_trainer_asks_answers_and_keeps_the_score() {
    let kitchen = Kitchen::open(false).await;
    let (status, none) = kitchen.get("/api/trainer/question?seed=1").await;
    assert_eq!((status, &none["asked"]), (200, &Value::Null), "nothing is kept yet");
    for (name, grams) in [("Quay drip", "100 g"), ("Pier mask", "220 g"), ("Loose sauce", "40 g")] {
        let mut own = formula();
        own["name"] = json!(name);
        own["lines"][0]["amount"] = json!(grams);
        assert_eq!(kitchen.post("/api/components", &own).await.0, 201);
    }
    let (mut right, mut asked) = (0, 0);
    for seed in 1..=12 {
        let (status, now) = kitchen.get(&format!("/api/trainer/question?seed={seed}&who=Ada")).await;
        assert_eq!(status, 200, "{now}");
        let question = &now["asked"];
        assert!(!question.to_string().contains("right"), "the answer is not with the question: {question}");
        if question.is_null() {
            continue;
        }
        asked += 1;
        let said = seed % question["question"]["choices"].as_array().unwrap().len();
        let (id, seal) = (format!("answer-{seed:03}"), &question["seal"]);
        let answer = json!({ "who": "Ada", "id": id, "ask": question["ask"], "seal": seal, "said": said });
        let (status, judged) = kitchen.post("/api/trainer/answers", &answer).await;
        assert_eq!(status, 201, "{judged}");
        assert_eq!(judged["answer"]["good"], json!(judged["answer"]["right"] == json!(said)));
        right += usize::from(judged["answer"]["good"] == json!(true));
        // Sent twice it counts once.
        assert_eq!(kitchen.post("/api/trainer/answers", &answer).await.1, judged);
    }
    assert!(asked > 8, "{asked} could be asked");
    let (_, score) = kitchen.get("/api/trainer/score?who=Ada").await;
    assert_eq!((&score["today"], &score["today_good"]), (&json!(asked), &json!(right)));
    assert_eq!(kitchen.get("/api/trainer/score").await.1["today"], json!(0), "somebody else's is their own");
    let (_, now) = kitchen.get("/api/trainer/question?seed=3&who=Ada&kind=drip").await;
    assert_eq!((&now["asked"]["question"]["kind"], &now["people"]), (&json!("drip"), &json!(["Ada"])));
    let asked = &now["asked"];
    let far =
        json!({ "who": "Ada", "id": "answer-099", "ask": asked["ask"], "seal": asked["seal"], "said": 6 });
    let (status, problem) = kitchen.post("/api/trainer/answers", &far).await;
    assert_eq!((status, &problem["errors"][0]["field"]), (422, &json!("said")), "{problem}");
    let mut gone = far.clone();
    gone["ask"]["component"] = json!("no-such-formula");
    assert_eq!(kitchen.post("/api/trainer/answers", &gone).await.0, 404);
    // A tablet's capitals make nobody somebody else.
    let (_, again) = kitchen.get("/api/trainer/question?seed=3&who=aDA&kind=drip").await;
    assert_eq!((&again["score"], &again["people"]), (&now["score"], &json!(["Ada"])));
    let anew = json!({ "who": "Ada", "id": "anew-0001" });
    let (status, score) = kitchen.post("/api/trainer/score", &anew).await;
    assert_eq!((status, &score["today"]), (201, &json!(0)));
    assert_eq!(kitchen.get(&format!("/api/trainer/score?who={}", "x".repeat(61))).await.0, 422);
    kitchen.close().await;
}

/// Between the question and the answer a colleague tested a batch: what was on the screen is not what would be asked now, and
/// neither a right answer nor a wrong one is written down.
#[tokio::test]
async fn an_answer_to_what_would_be_asked_otherwise_now_counts_for_nothing() {
    let kitchen = Kitchen::open(false).await;
    let mut own = formula();
    own["name"] = json!("Quay drip");
    assert_eq!(kitchen.post("/api/components", &own).await.0, 201);
    let (_, now) = kitchen.get("/api/trainer/question?seed=3&kind=drip").await;
    let asked = &now["asked"];
    tested(&kitchen, "Quay drip", "2026-01-02", 150.0).await;
    let mut answer = json!({ "id": "answer-001", "ask": asked["ask"], "seal": asked["seal"], "said": 1 });
    let (status, problem) = kitchen.post("/api/trainer/answers", &answer).await;
    assert_eq!((status, &problem["errors"][0]["code"]), (422, &json!("asked_otherwise")), "{problem}");
    assert_eq!(kitchen.get("/api/trainer/score").await.1["today"], json!(0));
    let (_, now) = kitchen.get("/api/trainer/question?seed=3&kind=drip").await;
    assert_ne!(now["asked"]["question"]["choices"], asked["question"]["choices"], "the lengths are others");
    answer["seal"] = now["asked"]["seal"].clone();
    assert_eq!(kitchen.post("/api/trainer/answers", &answer).await.0, 201);
    kitchen.close().await;
}
