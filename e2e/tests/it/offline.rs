//! The server goes away and comes back; the cook loses nothing.

use crate::SAVE;
use e2e::browser::ui_of_own_kitchen;
use e2e::{Ui, ui};
use fantoccini::key::Key;

async fn add(ui: &Ui, name: &str, amount: &str, full: &str) {
    ui.click("//button[@id='add-ingredient']").await;
    ui.find("//input[@role='combobox']").await.send_keys(name).await.expect("it takes keys");
    ui.press(Key::Enter).await;
    ui.write(&Ui::amount(full), amount).await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_empty_kitchen_starts_its_first_cream_and_survives_a_stopped_server() {
    ui_of_own_kitchen("stopped_server", async |ui| {
        ui.open("/").await;
        ui.find("//h1[.='Empty spoon']").await;
        ui.click("//a[.='Pick a cream']").await;
        ui.click("//a[.='an empty bowl']").await;
        ui.find("//h2[.='Empty spoon']").await;
        add(ui, "dark chocolate 60", "200 g", "Dark chocolate 60 %").await;
        // The first answer moves what stands below it: a click before that lands beside the button.
        ui.verdict_that("is of the first line", |said| said.contains("30.0 °C")).await;
        add(ui, "heavy cream", "200 g", "Cream 36 %").await;
        ui.verdict_that("is there", |said| said.contains("drip at 30.0 °C")).await;
        // A name is asked for before it is kept.
        ui.click(SAVE).await;
        ui.find("//*[@role='alert'][contains(., 'it has no name yet')]").await;
        ui.write("//input[@aria-label='Name of the formula']", "First drip").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;

        ui.stop_server().await;
        // The temperature needs no server: the sweep already holds every answer.
        let handle = ui.find("//*[@role='slider']").await;
        for step in 1..=8 {
            handle.send_keys(&char::from(Key::Left).to_string()).await.unwrap();
            let t = 30.0 - 0.5 * f64::from(step);
            ui.verdict_that("follows the key", |said| said.ends_with(&format!("at {t:.1} °C"))).await;
        }
        let from = ui.middle("//*[@role='slider']/span").await;
        ui.drag(from, (from.0 - 150.0, from.1)).await;
        let t = ui.temperature().await;
        assert!(t < 20.0, "the pointer left it at {t} °C");
        ui.verdict_that("follows the pointer", |said| said == format!("Too stiff to drip at {t:.1} °C"))
            .await;
        while ui.temperature().await != 30.0 {
            ui.click("//button[.='Undo']").await;
        }
        ui.write(&Ui::amount("Cream 36 %"), "180 g").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='alert'][contains(., 'It is kept on this device')]").await;
        assert_eq!(ui.value(&Ui::amount("Cream 36 %")).await, "180 g");

        ui.start_server_again().await;
        ui.client.refresh().await.unwrap();
        ui.find("//*[@role='status'][contains(., 'Your unsaved changes from')]").await;
        assert_eq!(ui.value(&Ui::amount("Cream 36 %")).await, "180 g");
        ui.verdict_that("is there again", |said| said.contains("drip at 30.0 °C")).await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        assert!(!ui.has("//*[contains(., 'Your unsaved changes from')][@role='status']").await);
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_page_says_that_the_server_is_gone_and_when_it_is_back() {
    ui_of_own_kitchen("server_notice", async |ui| {
        ui.open("/bench/new").await;
        ui.find("//h2[.='Empty spoon']").await;
        ui.stop_server().await;
        // The page looks after the server by itself every fifteen seconds; a question finds out at once.
        add(ui, "dark chocolate 60", "200 g", "Dark chocolate 60 %").await;
        ui.find("//header/following-sibling::p[@role='alert'][contains(., 'The server is not answering')]")
            .await;
        ui.start_server_again().await;
        ui.verdict_that("arrives by itself", |said| said.contains("drip at 30.0 °C")).await;
        ui.wait_for("the notice to go", async || {
            !ui.has("//header/following-sibling::p[@role='alert']").await
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_address_of_nothing_says_so() {
    ui("no_such_formula", async |ui| {
        ui.open("/bench/no-such-formula").await;
        ui.find("//p[contains(., 'There is no formula at this address')]").await;
        ui.click("//a[.='Open what was saved last']").await;
        ui.verdict_that("is there", |_| true).await;
    })
    .await;
}
