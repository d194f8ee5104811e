//! A batch: weighed, poured over, answered and finished by keyboard alone; at two devices; while the kitchen is away.

use crate::BAY;
use e2e::browser::{ui_of_own_kitchen, ui_of_two};
use e2e::viewport::Viewport;
use e2e::{Ui, ui};
use fantoccini::key::Key;
use serde_json::json;

const STILL: &str = "//section[@aria-label='To weigh']";
const MAKE: &str =
    "//div[@role='toolbar'][@aria-label='Make']//button[starts-with(normalize-space(.), 'Make ')]";

async fn heading(ui: &Ui) -> String {
    ui.text("//main//section//h1").await
}

async fn type_in(ui: &Ui, digits: &str) {
    for digit in digits.chars() {
        ui.press(digit).await;
    }
}

/// Grams still to pour, as they stand on the page.
async fn still(ui: &Ui) -> String {
    let text = ui.text(&format!("{STILL}//p[contains(@class, '184px')]")).await;
    text.trim_end_matches('g').trim().replace(',', "")
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_batch_is_weighed_poured_over_answered_and_finished_by_keyboard_alone() {
    ui("batch_keyboard", async |ui| {
        ui.open_formula(BAY).await;
        ui.find(&format!("{MAKE}[not(@disabled)]")).await;
        ui.press('k').await;
        ui.find(STILL).await;
        let first = heading(ui).await;
        // Next with nothing weighed asks, and says what it would be without.
        ui.press(' ').await;
        let asked = ui.text("//*[@role='alert'][contains(., 'Left out on purpose?')]").await;
        assert!(asked.contains(&first) && asked.contains("Without it:"), "{asked}");
        // A fifth too much goes in: the answers are there, one key takes one.
        let mark: f64 = still(ui).await.parse().unwrap();
        type_in(ui, &format!("{:.0}", 1.2 * mark)).await;
        ui.press(Key::Enter).await;
        ui.find("//section[@aria-label='Past its mark']").await;
        // The kitchen works them out: until it answers only leaving it so is there.
        ui.find("//section[@aria-label='Past its mark'][contains(., 'Scale the rest')]").await;
        let over = ui.text("//section[@aria-label='Past its mark']").await;
        assert!(over.contains("Leave it"), "{over}");
        // Taken back and typed again: nothing of it is lost, nothing of it counts.
        ui.press(Key::Backspace).await;
        ui.find(STILL).await;
        ui.wait_for("it is still to pour", async || heading(ui).await == first).await;
        // What the scale shows to the mark, line by line, then step by step.
        for _ in 0..60 {
            if ui.has("//section[@aria-label='The end']").await {
                break;
            }
            let before = heading(ui).await;
            if ui.has(STILL).await {
                let grams = still(ui).await;
                type_in(ui, &grams).await;
                ui.press(Key::Enter).await;
            } else {
                ui.press(' ').await;
            }
            ui.wait_for("the next", async || {
                ui.has("//section[@aria-label='The end']").await || heading(ui).await != before
            })
            .await;
        }
        ui.find("//section[@aria-label='The end']").await;
        ui.click("//button[normalize-space(.)='As it should']").await;
        ui.click("//button[normalize-space(.)='Close the batch']").await;
        ui.find("//h1[.='Made.']").await;
        // The tape says what is really in, and comes out of the printer.
        let tape = ui.text("//section[@aria-label='Tape']//div[contains(@class, 'tape')]").await;
        assert!(tape.contains("Contains") && tape.contains("use by"), "{tape}");
        ui.click("//button[contains(., 'Print it on Label printer')]").await;
        ui.find("//section[@aria-label='Tape']//img").await;
        ui.click("//section[@aria-label='Where it stands']//button[normalize-space(.)='Cream fridge']").await;
        ui.find("//section[@aria-label='Where it stands'][contains(., 'It stands in Cream fridge')]").await;
        ui.write("//label[contains(., 'Left over, g')]//input", "40").await;
        ui.press(Key::Enter).await;
        ui.find("//section[@aria-label='Where it stands'][contains(., '40 g left over')]").await;
        let axe = crate::looks::axe();
        let faults = ui.serious_faults(&axe).await;
        assert!(faults.is_empty(), "{}", faults.join("\n"));
        ui.click("//button[normalize-space(.)='What happened']").await;
        ui.find("//*[@role='dialog']//li[contains(., 'taken back')]").await;
        ui.find("//*[@role='dialog']//li[contains(., 'It came out as it should')]").await;
        ui.open("/make").await;
        ui.find(
            "//section[@aria-label='Left over']//a[contains(., '40 g') and contains(., 'in Cream fridge')]",
        )
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_scale_pours_past_the_mark_is_answered_and_the_next_line_begins_by_keyboard_alone() {
    ui("batch_scale", async |ui| {
        ui.open_formula(BAY).await;
        ui.find(&format!("{MAKE}[not(@disabled)]")).await;
        ui.press('k').await;
        ui.find(STILL).await;
        let first = heading(ui).await;
        ui.find(&format!("{STILL}//p[contains(., 'Bench scale') and contains(., 'still')]")).await;
        // A bowl stands on it: set to 0 by a key, it shows nothing.
        ui.press('t').await;
        ui.find(&format!("{STILL}//p[contains(., 'Bench scale: 0 g')]")).await;
        let mark: f64 = still(ui).await.parse().unwrap();
        // The hand of the cook is the scenario of the stand-in.
        let pour = |grams: f64, over: f64| {
            json!({ "device": "Bench scale", "wish": { "do": "play",
                "scenario": format!("pour {grams:.1} g at 60 g/s, overshoot {over:.1} g") } })
        };
        assert_eq!(ui.post("/api/devices/ask", &pour(mark, 0.2 * mark)).await, 200);
        // What is past its mark is taken as it stands still, and the answers are there.
        ui.find("//section[@aria-label='Past its mark']").await;
        // Taken back it is on the scale again, and is not taken again by itself.
        ui.press(Key::Backspace).await;
        ui.find(&format!("{STILL}//p[normalize-space(.)='too much']")).await;
        ui.press(' ').await;
        ui.find("//section[@aria-label='Past its mark']").await;
        ui.press('a').await;
        ui.wait_for("the next line", async || ui.has(STILL).await && heading(ui).await != first).await;
        // The next line begins with what is on the scale: it asks for all of it.
        let second = heading(ui).await;
        let mark: f64 = still(ui).await.parse().unwrap();
        assert_eq!(ui.post("/api/devices/ask", &pour(mark, 0.0)).await, 200);
        ui.wait_for("it is poured", async || still(ui).await.parse::<f64>().is_ok_and(|own| own < 1.0)).await;
        ui.press(' ').await;
        ui.wait_for("it is in", async || !ui.has(STILL).await || heading(ui).await != second).await;
        ui.click("//button[normalize-space(.)='What happened']").await;
        ui.find(&format!("//*[@role='dialog']//li[contains(., '{second}') and contains(., ' in')]")).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_serious_at_a_batch_at_any_size() {
    ui("batch_looks", async |ui| {
        let axe = crate::looks::axe();
        for size in [Viewport(1280, 800), Viewport(820, 1180), Viewport(320, 640)] {
            ui.set_viewport(size).await;
            ui.open("/make").await;
            ui.click("//main//li//a[contains(., 'Bay')]").await;
            for over in [false, true] {
                ui.find(STILL).await;
                if over {
                    type_in(ui, "90").await;
                    ui.press(Key::Enter).await;
                    ui.find("//section[@aria-label='Past its mark']").await;
                }
                let wide = ui.js("return document.documentElement.scrollWidth").await;
                assert_eq!(wide, size.0, "{size:?}, over {over}: something stands out at the side");
                let faults = ui.serious_faults(&axe).await;
                assert!(faults.is_empty(), "{size:?}, over {over}:\n{}", faults.join("\n"));
            }
            ui.press(Key::Backspace).await;
            ui.find(STILL).await;
        }
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_tablets_at_one_batch_and_one_scale_see_the_same_and_weigh_once() {
    ui_of_two("batch_tablets", async |first, second| {
        first.open("/make").await;
        first.click("//main//li//a[contains(., 'Bay')]").await;
        first.find(STILL).await;
        let path = first.client.current_url().await.unwrap().path().to_owned();
        second.open(&path).await;
        second.find(STILL).await;
        let line = heading(first).await;
        assert_eq!(heading(second).await, line);
        // What is typed at the one is seen at the other.
        let grams = still(first).await;
        type_in(first, &grams).await;
        first.press(Key::Enter).await;
        second.wait_for("the next line", async || heading(second).await != line).await;
        let line = heading(second).await;
        first.wait_for("the same line", async || heading(first).await == line).await;
        // Both see the scale past the mark: the one that weighed last takes it, and it counts once.
        let mark: f64 = still(first).await.parse().unwrap();
        let pour = json!({ "device": "Bench scale", "wish": { "do": "play",
            "scenario": format!("pour {mark:.1} g at 60 g/s, overshoot {:.1} g", 0.4 * mark + 3.0) } });
        assert_eq!(first.post("/api/devices/ask", &pour).await, 200);
        for own in [&*first, &*second] {
            own.find("//section[@aria-label='Past its mark']").await;
        }
        let id = path.replace("/make/", "");
        let events =
            first.js(&format!("return fetch('/api/batches/{id}/events').then((own) => own.json())")).await;
        let by_device =
            |own: &&serde_json::Value| own["event"]["by"] == "device" && own["event"]["what"] == "weighed";
        assert_eq!(events.as_array().unwrap().iter().filter(by_device).count(), 1, "{events}");
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_another_device_says_is_here_within_a_second_and_a_clock_outlives_a_reload() {
    ui("batch_two", async |ui| {
        ui.open("/make").await;
        ui.click("//main//li//a[contains(., 'Bay')]").await;
        ui.find(STILL).await;
        let path = ui.client.current_url().await.unwrap().path().replace("/make/", "");
        let events = json!({ "events": [
            { "id": "other-device-1", "at": "2026-01-05T08:00:00Z",
              "event": { "what": "timer_set", "name": "Stand, lid on", "min": 2880 } },
            { "id": "other-device-2", "at": "2026-01-05T08:00:10Z",
              "event": { "what": "read", "c": 81.5, "by": "device" } },
        ] });
        assert_eq!(ui.post(&format!("/api/batches/{path}/events"), &events).await, 201);
        ui.find("//aside//p[contains(., '81.5 °C')]").await;
        ui.client.refresh().await.expect("it loads again");
        ui.find("//aside//ul[@aria-label='Clocks']//li[contains(., 'Stand, lid on')]").await;
        // Set months ago, it has rung: heard here, it is off everywhere.
        ui.click("//aside//button[contains(., 'Heard')]").await;
        ui.wait_for("it is off", async || !ui.has("//aside//li[contains(., 'Stand, lid on')]").await).await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn devices_are_named_in_the_settings_and_what_is_wrong_stands_at_its_field() {
    ui("devices_sheet", async |ui| {
        ui.open("/make").await;
        ui.click("//button[starts-with(normalize-space(.), 'Room')]").await;
        ui.click("//button[normalize-space(.)='Devices']").await;
        ui.find("//*[@role='dialog']//li[contains(., 'Bench scale is live')]").await;
        ui.click("//*[@role='dialog']//button[normalize-space(.)='Another device']").await;
        ui.write("(//*[@role='dialog']//label[contains(., 'Called')]//input)[5]", "Fine scale").await;
        ui.write(
            "(//*[@role='dialog']//label[contains(., 'Address and port')]//input)[5]",
            "scale.example:80",
        )
        .await;
        ui.click("//*[@role='dialog']//button[normalize-space(.)='Save']").await;
        ui.find("//*[@role='dialog']//*[@role='alert'][contains(., 'address and port in numbers')]").await;
        ui.write("(//*[@role='dialog']//label[contains(., 'Address and port')]//input)[5]", "127.0.0.1:9")
            .await;
        ui.click("//*[@role='dialog']//button[normalize-space(.)='Save']").await;
        ui.find("//*[@role='dialog']//li[contains(., 'Fine scale does not answer')]").await;
        let axe = crate::looks::axe();
        let faults = ui.serious_faults(&axe).await;
        assert!(faults.is_empty(), "{}", faults.join("\n"));
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_is_weighed_while_the_kitchen_is_away_stays_here_and_is_sent_when_it_is_back() {
    ui_of_own_kitchen("batch_offline", async |ui| {
        let formula = json!({
            "format": "bright-spoon/formula", "version": 1, "name": "Quay drip", "family": "ganache",
            "lines": [
                { "ingredient": "dark55", "amount": "100 g" },
                { "ingredient": "cream35", "amount": "100 g" }
            ],
            "work": { "job": { "kind": "drip" }, "temperature_c": 30.0, "room_temperature_c": 21.0 }
        });
        ui.open("/make").await;
        ui.find("//h1[.='Nothing is being made']").await;
        assert_eq!(ui.post("/api/batches", &json!({ "formula": formula })).await, 201);
        ui.open("/make").await;
        ui.click("//main//li//a[contains(., 'Quay drip')]").await;
        ui.find(STILL).await;
        let first = heading(ui).await;
        ui.stop_server().await;
        type_in(ui, "100").await;
        ui.press(Key::Enter).await;
        let kept = ui.text("//*[@role='status'][contains(., 'On this device')]").await;
        assert!(kept.contains("100 g of"), "{kept}");
        // Nobody weighs it twice meanwhile.
        ui.wait_for("the next line", async || heading(ui).await != first).await;
        ui.start_server_again().await;
        ui.wait_for("it is sent", async || !ui.has("//*[contains(., 'On this device, sent')]").await).await;
        assert_ne!(heading(ui).await, first);
    })
    .await;
}
