//! Ways there: tried, put back, used, undone; what must hold holds.

use crate::{BAY, TOO_STIFF, names};
use e2e::{Ui, ui};
use fantoccini::key::Key;

const FIRST: &str = "//*[@data-way='A']";

/// Opens the drip with nothing in the hand, its ways on the page.
async fn with_ways(ui: &Ui) {
    ui.open_formula(BAY).await;
    ui.find(FIRST).await;
    ui.js("document.activeElement?.blur()").await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_way_is_tried_put_back_used_and_undone_by_keys() {
    ui("ways_keys", async |ui| {
        with_ways(ui).await;
        let before = ui.value(&Ui::amount("Cream 36 %")).await;
        // A is another temperature, D another amount. Tried: the verdict, the curve and the row speak of it, the formula is as it was.
        ui.press('d').await;
        ui.verdict_that("is of the way", |said| said != TOO_STIFF && said.contains("right to drip")).await;
        ui.find("//p[contains(., 'With D, not done yet')]").await;
        ui.find("//*[name()='text'][.='with D']").await;
        assert_eq!(ui.value(&Ui::amount("Cream 36 %")).await, before);
        assert!(ui.has("//*[@role='status'][contains(., 'version 1, saved')]").await);
        ui.press(Key::Escape).await;
        ui.verdict_that("is the first again", |said| said == TOO_STIFF).await;
        // Another letter tries another way.
        ui.press('a').await;
        ui.find("//button[starts-with(@aria-label, 'Use A')]").await;
        ui.press('d').await;
        ui.find("//button[starts-with(@aria-label, 'Use D')]").await;
        ui.press(Key::Enter).await;
        ui.verdict_that("is right", |said| said.to_lowercase().contains("right to drip")).await;
        ui.wait_for("the way is the formula", async || {
            !ui.has("//p[not(@role)][contains(., 'not done yet')]").await
                && !ui.has("//*[@role='status'][contains(., 'version 1, saved')]").await
        })
        .await;
        ui.find("//p[starts-with(., 'Nothing to do')]").await;
        ui.chord(Key::Control, 'z').await;
        ui.verdict_that("is the first once more", |said| said == TOO_STIFF).await;
        assert_eq!(ui.value(&Ui::amount("Cream 36 %")).await, before);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_line_that_stays_is_in_no_way_and_the_rule_is_kept() {
    ui("ways_lock", async |ui| {
        with_ways(ui).await;
        ui.find("//*[@data-way][contains(., 'Cream 36')]").await;
        ui.click("//button[@aria-label='More for Cream 36 %']").await;
        ui.click("//*[@role='menuitem'][.='Leave as it is']").await;
        ui.find("//*[@data-line][contains(., 'Cream 36')]//p[contains(., 'stays as it is')]").await;
        ui.find("//button[.='What must hold: 1 rule']").await;
        ui.find(FIRST).await;
        ui.wait_for("no way moves the cream", async || {
            !ui.has("//*[@data-way][contains(., 'g Cream 36')]").await && ui.has(FIRST).await
        })
        .await;
        // Saved, opened again: the rule is there.
        ui.press('s').await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        ui.client.refresh().await.unwrap();
        ui.find("//*[@data-line][contains(., 'Cream 36')]//p[contains(., 'stays as it is')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_cannot_be_had_together_is_named_with_the_nearest() {
    ui("ways_rules", async |ui| {
        with_ways(ui).await;
        ui.click("//button[.='What must hold']").await;
        ui.click("//button[.='Add a share']").await;
        ui.click("//select[@aria-label='Of what, share 1']/option[.='Butter 82 %']").await;
        ui.write("//input[@aria-label='At least per cent, share 1']", "70\u{e007}").await;
        ui.write("//input[@aria-label='At most per cent, share 1']", "20\u{e007}").await;
        ui.click("//button[.='Done']").await;
        // Crossed limits say what to do.
        ui.find("//section[@aria-label='Ways there']//*[@role='alert'][contains(., 'cannot both hold')]")
            .await;
        ui.click("//button[.='What must hold: 1 rule']").await;
        ui.write("//input[@aria-label='At most per cent, share 1']", "\u{e003}\u{e007}").await;
        ui.click("//button[.='Done']").await;
        // Seven tenths butter is no drip.
        ui.find("//section[@aria-label='Ways there'][contains(., 'In the way: at least 70 % Butter')]").await;
        assert_eq!(names(ui).await.len(), 6);
        ui.click("//button[.='Take the nearest']").await;
        ui.wait_for("other amounts", async || ui.value(&Ui::amount("Butter 82 %")).await != "12 g").await;
        ui.verdict_that("is the nearest's", |said| said != TOO_STIFF).await;
        ui.find("//section[@aria-label='Ways there'][contains(., 'at least 70 % Butter 82 %')]").await;
        ui.click("//button[.='What must hold: 1 rule']").await;
        ui.click("//button[.='Free everything']").await;
        ui.click("//button[.='Done']").await;
        ui.find("//button[.='What must hold']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_hand_points_and_the_first_is_used_at_once() {
    ui("ways_hand", async |ui| {
        with_ways(ui).await;
        // The best is one touch away while the cream is outside.
        ui.click("//button[starts-with(@aria-label, 'Use A')]").await;
        ui.verdict_that("is right", |said| said.to_lowercase().contains("right to drip")).await;
        ui.find("//p[starts-with(., 'Nothing to do')]").await;
        ui.click("//button[.='Undo']").await;
        ui.find(FIRST).await;
        ui.click("//button[starts-with(@aria-label, 'Try D')]").await;
        ui.find("//*[@data-way='D']//p[contains(., 'Comes out right')]").await;
        ui.click("//button[starts-with(@aria-label, 'Use D')]").await;
        ui.find("//button[.='Undo'][not(@disabled)]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_pack_on_a_line_is_said_on_the_row_and_kept_to() {
    ui("ways_packs", async |ui| {
        with_ways(ui).await;
        ui.click("//button[.='What must hold']").await;
        ui.write("//input[@aria-label='In packs of, g of Cream 36 %']", "45").await;
        ui.press(Key::Enter).await;
        ui.click("//button[.='Done']").await;
        ui.find("//*[@data-line][contains(., 'Cream 36')]//p[contains(., 'in packs of 45 g')]").await;
        ui.find("//button[.='What must hold: 1 rule']").await;
        ui.find(FIRST).await;
        ui.wait_for("cream moves by whole packs or not at all", async || {
            !ui.has("//*[@data-way][contains(., 'g Cream 36') and not(contains(., 'for Cream 36'))]").await
                && ui.has(FIRST).await
        })
        .await;
    })
    .await;
}
