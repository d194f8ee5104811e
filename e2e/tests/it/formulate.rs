//! The path through the Bench: open, change, drag, save, and find it again.

use crate::{BAY, SAVE, TOO_STIFF};
use e2e::{Ui, ui};
use fantoccini::key::Key;

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn open_change_drag_save_and_find_it_again() {
    ui("open_change_drag_save", async |ui| {
        ui.open_formula(BAY).await;
        assert_eq!(ui.verdict_that("is the first", |_| true).await, TOO_STIFF);

        // More cream: it drips.
        ui.write(&Ui::amount("Cream 36 %"), "115 g").await;
        let better = ui.verdict_that("is a good one", |said| said.contains("right to drip at 26.0 °C")).await;

        // Colder by keyboard, six half degrees.
        let handle = ui.find("//*[@role='slider']").await;
        for _ in 0..12 {
            handle.send_keys(&char::from(Key::Left).to_string()).await.unwrap();
        }
        let stiff = ui.verdict_that("is at 20 °C", |said| said.ends_with("at 20.0 °C")).await;
        assert_ne!(better, stiff);
        assert_eq!(ui.temperature().await, 20.0);
        // The same again by pointer: drag the handle to the right end. It stays where it is whatever is looked for.
        let from = ui.middle("//*[@role='slider']/span").await;
        ui.drag(from, (from.0 + 220.0, from.1)).await;
        // The page may still be taking in the last moves.
        ui.wait_for("the pointer to have warmed it past 30 °C", async || ui.temperature().await > 30.0).await;
        let warm = ui.settled_temperature().await;
        ui.verdict_that("follows the pointer", |said| said.ends_with(&format!("at {warm:.1} °C"))).await;
        // And by finger, back to the left.
        let from = ui.middle("//*[@role='slider']/span").await;
        ui.drag_by_touch(from, (from.0 - 90.0, from.1)).await;
        ui.wait_for("the finger to have cooled it", async || ui.temperature().await < warm - 3.0).await;
        let cooler = ui.settled_temperature().await;
        ui.verdict_that("follows the finger", |said| said.ends_with(&format!("at {cooler:.1} °C"))).await;
        let warm = cooler;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        ui.client.refresh().await.unwrap();
        ui.verdict_that("is back", |said| said.ends_with(&format!("at {warm:.1} °C"))).await;
        assert_eq!(ui.value(&Ui::amount("Cream 36 %")).await, "115 g");
        assert_eq!(ui.temperature().await, warm);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn keys_alone_are_enough() {
    ui("keys_alone", async |ui| {
        ui.open_formula(BAY).await;
        // Arrows move the temperature wherever the focus is not a field.
        ui.js("document.activeElement.blur()").await;
        ui.press(Key::Right).await;
        ui.press(Key::Right).await;
        ui.verdict_that("is a degree warmer", |said| said.ends_with("at 27.0 °C")).await;
        // A grain more in the focused weight, ten with Shift.
        ui.find(&Ui::amount("Butter 82 %")).await.click().await.unwrap();
        ui.press(Key::Up).await;
        assert_eq!(ui.value(&Ui::amount("Butter 82 %")).await, "13 g");
        ui.chord(Key::Shift, Key::Up.into()).await;
        assert_eq!(ui.value(&Ui::amount("Butter 82 %")).await, "23 g");
        // Undo and redo.
        // A run without a pause is one step; a slow machine may have paused once.
        ui.chord(Key::Control, 'z').await;
        if ui.value(&Ui::amount("Butter 82 %")).await == "13 g" {
            ui.chord(Key::Control, 'z').await;
        }
        assert_eq!(ui.value(&Ui::amount("Butter 82 %")).await, "12 g");
        ui.chord(Key::Control, 'y').await;
        if ui.value(&Ui::amount("Butter 82 %")).await == "13 g" {
            ui.chord(Key::Control, 'y').await;
        }
        assert_eq!(ui.value(&Ui::amount("Butter 82 %")).await, "23 g");
        // Save from inside a field, and with S outside.
        ui.chord(Key::Control, 's').await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        ui.press(Key::Enter).await;
        ui.js("document.activeElement.blur()").await;
        ui.press(Key::Left).await;
        ui.press('s').await;
        ui.find("//*[@role='status'][contains(., 'version 3, saved')]").await;
        // A close look and back.
        ui.press('z').await;
        ui.find("//button[starts-with(., 'Whole map')]").await;
        ui.press('z').await;
        ui.find("//button[starts-with(., 'Look closer')]").await;
        // Add an ingredient.
        ui.press('/').await;
        ui.find("//input[@role='combobox']").await.send_keys("heavy cream").await.unwrap();
        ui.press(Key::Enter).await;
        ui.wait_for("the new amount to have the focus", async || {
            ui.js("return document.activeElement.getAttribute('aria-label')").await == "Amount of Cream 36 %"
        })
        .await;
    })
    .await;
}

/// Seen with a busy machine: the map shrank when the ways came, and the pointer caught what had moved under it.
#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_map_and_the_job_stay_where_they_are_while_ways_are_looked_for() {
    ui("map_stays", async |ui| {
        ui.open_formula(BAY).await;
        ui.find("//section[@aria-label='Ways there']//li").await;
        let record = "window.tops = [new Set(), new Set()];
            const look = () => {
              const heads = [...document.querySelectorAll('h2')];
              const places = [
                document.querySelector('[role=slider] span'),
                heads.find((head) => head.textContent === 'The job'),
              ];
              places.forEach((place, k) => place && tops[k].add(Math.round(place.getBoundingClientRect().top)));
              requestAnimationFrame(look);
            };
            look()";
        ui.js(record).await;
        let note = "//input[@aria-label='Note']";
        // Changes that ask for new ways and find the same again.
        for words in ["one", "two"] {
            ui.write(note, words).await;
            ui.wait_for("ways again", async || ui.has("//section[@aria-label='Ways there']//li").await).await;
        }
        tokio::time::sleep(std::time::Duration::from_millis(600)).await;
        let tops = ui.js("return tops.map((each) => [...each])").await;
        assert_eq!(tops[0].as_array().unwrap().len(), 1, "the handle moved: {tops}");
        assert_eq!(tops[1].as_array().unwrap().len(), 1, "the job moved: {tops}");
    })
    .await;
}
