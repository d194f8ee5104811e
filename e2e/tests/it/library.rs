//! The library: found, tagged, duplicated, put away, compared; a file in and out.

use crate::SAVE;
use e2e::{Ui, ui};

const ROWS: &str = "return document.querySelectorAll('ul[aria-label=\"All formulas\"] > li').length";

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn formulas_are_found_tagged_duplicated_and_put_away() {
    ui("library", async |ui| {
        ui.open("/").await;
        ui.verdict_that("is there", |_| true).await;
        ui.press('6').await;
        ui.find("//h1[.='Formulas']").await;
        ui.wait_for("all of them", async || ui.js(ROWS).await == 37).await;
        ui.write("//input[@aria-label='Find a formula']", "mousse domes").await;
        ui.wait_for("the one", async || ui.js(ROWS).await == 1).await;
        ui.click("//button[@aria-label='More for Blackcurrant dome mousse']").await;
        ui.click("//*[@role='menuitem'][.='Tags…']").await;
        ui.write("//*[@role='dialog']//input", "domes, gift box").await;
        ui.click("//button[.='Tag it']").await;
        ui.find("//li[contains(., 'Blackcurrant')]//span[.='gift box']").await;
        ui.click("//button[@aria-label='More for Blackcurrant dome mousse']").await;
        ui.click("//*[@role='menuitem'][.='Put away']").await;
        ui.find("//p[contains(., 'Nothing answers to that')]").await;
        ui.click("//label[contains(., 'also those put away')]/input").await;
        ui.find("//a[contains(., 'Blackcurrant dome mousse') and contains(., 'put away')]").await;
        ui.click("//button[@aria-label='More for Blackcurrant dome mousse']").await;
        ui.click("//*[@role='menuitem'][.='Duplicate']").await;
        ui.wait_for("the copy on the Bench", async || {
            ui.value("//input[@aria-label='Name of the formula']").await == "Blackcurrant dome mousse, copy"
        })
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn formulas_and_versions_are_set_side_by_side() {
    ui("compare", async |ui| {
        ui.open("/formulas").await;
        for name in ["Bay milk-chocolate drip", "Cardamom white drip", "Daily pastry cream"] {
            ui.click(&format!("//input[@aria-label='Compare {name}']")).await;
        }
        ui.click("//button[.='Compare 3 formulas']").await;
        ui.find("//h1[contains(., 'times as stiff as')]").await;
        ui.find("//tr[.//th[contains(., 'White chocolate 30 %') and contains(., 'differs')]]").await;
        // Two versions of one formula: only what was changed is marked.
        ui.open_formula("Bay milk-chocolate drip").await;
        ui.write(&Ui::amount("Salt"), "2 g").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        ui.click("//button[.='Versions']").await;
        ui.click("//li[.//b[.='Version 1']]//a[.='Compare']").await;
        ui.find("//tr[.//th[contains(., 'Salt') and contains(., 'differs')]]").await;
        ui.find("//tr[.//th[contains(., 'Glucose syrup') and contains(., 'the same')]]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_formula_file_is_opened_and_a_bad_one_is_refused_in_words() {
    ui("files", async |ui| {
        ui.open("/formulas").await;
        ui.find("//h1[.='Formulas']").await;
        let input = "//input[@aria-label='Formula file']";
        let dir = tempfile::tempdir().unwrap();
        let give = async |name: &str, text: &str| {
            let file = dir.path().join(name);
            std::fs::write(&file, text).unwrap();
            let field = ui.client.find(fantoccini::Locator::XPath(input)).await.unwrap();
            field.send_keys(file.to_str().unwrap()).await.unwrap();
        };
        give("notes.json", "eggs, butter").await;
        ui.find("//*[@role='alert'][contains(., 'notes.json is not JSON')]").await;
        let demo = include_str!("../../../crates/server/demo/34-pear-cider-jelly.json");
        give("bad.json", &demo.replace("\"160 g\"", "\"some\"")).await;
        ui.find("//*[@role='alert'][contains(., 'no number at the front')]").await;
        give("good.json", &demo.replace("Pear and cider jelly", "A jelly from a file")).await;
        ui.wait_for("it on the Bench", async || {
            ui.has("//input[@aria-label='Name of the formula'][@value='A jelly from a file']").await
        })
        .await;
    })
    .await;
}
