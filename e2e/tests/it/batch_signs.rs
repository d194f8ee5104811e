//! Beside the pouring: the bell before it is warm or cold enough, the spoon's sign at a step, bowls by name.

use e2e::Ui;
use e2e::browser::{ui, ui_of_own_kitchen};
use fantoccini::key::Key;
use serde_json::{Value, json};

const FORMULA: &str = include_str!("../../../crates/server/demo/01-bay-milk-drip.json");

/// Begins a batch and weighs and does everything up to the step that brings it to its work: its key, and where that step wants it, °C.
async fn at_its_last_step(ui: &Ui) -> (String, f64) {
    let script = r"
        const [formula, done] = arguments;
        (async () => {
            const post = async (path, body) => (await fetch(path, { method: 'POST',
                headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })).json();
            let now = await post('/api/batches', { formula });
            const id = now.kept.id;
            const begun = Date.now() - 3 * 3600000;
            for (let turn = 0; turn < 60; turn++) {
                const { view } = now;
                const step = view.step == null ? null : view.steps[view.step];
                if (view.line == null && (step == null || step.look)) break;
                const event = view.line == null
                    ? { what: 'done', step: step.key }
                    : { what: 'weighed', line: view.line, grams: view.lines[view.line].still_g, by: 'hand' };
                const at = new Date(begun + 1000 * turn).toISOString();
                now = await post(`/api/batches/${id}/events`,
                    { events: [{ id: `${id.slice(-12)}-${turn}`, at, event }] });
            }
            done([id, now.view.steps[now.view.step].temperature_c[1]]);
        })();";
    let formula: Value = serde_json::from_str(FORMULA).expect("a formula");
    let answer = ui.client.execute_async(script, vec![formula]).await.expect("it is begun");
    (answer[0].as_str().expect("a key").to_owned(), answer[1].as_f64().expect("a temperature"))
}

/// What a probe without a line to the kitchen showed while it cooled by Newton's law: typed in, the last of it now.
async fn cooled(ui: &Ui, batch: &str, goal_c: f64, minutes_left: f64) {
    let script = r"
        const [batch, reads, done] = arguments;
        const events = reads.map(([ago, c], at) => ({ id: `${batch.slice(-12)}-read-${at}`,
            at: new Date(Date.now() - 60000 * ago).toISOString(), event: { what: 'read', c, by: 'hand' } }));
        fetch(`/api/batches/${batch}/events`, { method: 'POST', headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ events }) }).then((own) => done(own.status));";
    let (from_c, air_c, constant_min) = (46.0, 21.0, 55.0_f64);
    let whole = constant_min * ((from_c - air_c) / (goal_c - air_c)).ln();
    let last = whole - minutes_left;
    let reads: Vec<[f64; 2]> = (0..=20)
        .map(|at| {
            let min = last * f64::from(at) / 20.0;
            let c: f64 = air_c + (from_c - air_c) * (-min / constant_min).exp();
            [last - min, (10.0 * c).round() / 10.0]
        })
        .collect();
    let status = ui.client.execute_async(script, vec![batch.into(), json!(reads)]).await.expect("it is sent");
    assert_eq!(status, json!(201));
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn it_rings_before_it_is_cool_enough_and_the_spoon_shows_what_to_look_for() {
    ui_of_own_kitchen("batch_bell", async |ui| {
        ui.open("/make").await;
        let (batch, goal_c) = at_its_last_step(ui).await;
        cooled(ui, &batch, goal_c, 25.0).await;
        ui.open(&format!("/make/{batch}")).await;
        ui.find("//section[@aria-label='To do']//figure[contains(., 'as worked out, at')]").await;
        // On the way: a clock of its own, and no ring.
        ui.find("//aside//ul[@aria-label='Clocks']/li[contains(., 'about')]").await;
        assert!(!ui.has("//aside//button[starts-with(@aria-label, 'Heard: Near')]").await);
        let (batch, goal_c) = at_its_last_step(ui).await;
        cooled(ui, &batch, goal_c, 2.0).await;
        ui.open(&format!("/make/{batch}")).await;
        ui.click("//aside//button[starts-with(@aria-label, 'Heard: Near')]").await;
        ui.wait_for("it is heard", async || {
            !ui.has("//aside//button[starts-with(@aria-label, 'Heard: Near')]").await
        })
        .await;
        ui.find("//aside//ul[@aria-label='Clocks']/li[contains(., 'about')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_bowl_with_a_name_is_known_in_every_batch_and_taken_off_at_the_end() {
    ui("batch_bowls", async |ui| {
        ui.open("/make").await;
        ui.click("(//main//ul//a[starts-with(@href, '/make/')])[1]").await;
        ui.click("//section[@aria-label='To weigh']//button[normalize-space(.)='Bowls']").await;
        ui.click("//*[@role='dialog']//button[normalize-space(.)='Remember it']").await;
        ui.find("//*[@role='dialog']//*[@role='alert'][contains(., 'Give the bowl a name')]").await;
        ui.write("//*[@role='dialog']//label[contains(., 'Another bowl')]//input", "Steel 24").await;
        ui.write("//*[@role='dialog']//label[contains(., 'Empty it weighs')]//input", "412").await;
        ui.click("//*[@role='dialog']//button[normalize-space(.)='Remember it']").await;
        ui.find("//*[@role='dialog']//li[contains(., 'Steel 24, 412 g')]").await;
        let faults = ui.serious_faults(&crate::looks::axe()).await;
        assert!(faults.is_empty(), "{}", faults.join("\n"));
        let (batch, _) = at_its_last_step(ui).await;
        ui.open(&format!("/make/{batch}")).await;
        for _ in 0..12 {
            if ui.has("//section[@aria-label='The end']").await {
                break;
            }
            let before = ui.text("//main//section//h1").await;
            ui.press(' ').await;
            ui.wait_for("the next", async || {
                ui.has("//section[@aria-label='The end']").await
                    || ui.text("//main//section//h1").await != before
            })
            .await;
        }
        ui.write("//label[contains(., 'What came out')]//input", "712").await;
        ui.click("//section[@aria-label='The end']//select/option[contains(., 'Steel 24')]").await;
        ui.find("//section[@aria-label='The end']//b[.='300 g came out']").await;
        ui.click("//button[normalize-space(.)='As it should']").await;
        ui.click("//button[normalize-space(.)='Close the batch']").await;
        ui.find("//h1[.='Made.']").await;
        ui.find("//main[contains(., '300 g')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_test_at_the_bench_is_a_guided_minute_and_says_what_it_says() {
    ui_of_own_kitchen("batch_test", async |ui| {
        ui.open("/make").await;
        let (batch, _) = at_its_last_step(ui).await;
        ui.open(&format!("/make/{batch}")).await;
        ui.find("//section[@aria-label='To do']").await;
        ui.press('b').await;
        ui.find("//*[@role='dialog']//p[contains(., 'Read its temperature first')]").await;
        ui.write("//*[@role='dialog']//label[contains(., 'It is at')]//input", "30").await;
        ui.click("//*[@role='dialog']//ul[@aria-label='Tests']//button[starts-with(., 'plate spread')]")
            .await;
        ui.find("//*[@role='dialog']//ol/li[contains(., 'Wait a minute')]").await;
        ui.write("//*[@role='dialog']//label[contains(., 'Across')]//input", "120").await;
        ui.press(Key::Enter).await;
        ui.find("//*[@role='dialog']//*[@role='status'][contains(., 'where the book says')]").await;
        let faults = ui.serious_faults(&crate::looks::axe()).await;
        assert!(faults.is_empty(), "{}", faults.join("\n"));
        ui.press(Key::Escape).await;
        ui.find("//aside//p[contains(., 'where the book says')]").await;
    })
    .await;
}
