//! Shells and pieces on the page: from a build to grams in each, a shell thicker than its tin, a film, more of them.

use crate::SAVE;
use e2e::{Ui, ui};

async fn headline_that(ui: &Ui, what: &str, holds: impl Fn(&str) -> bool) {
    ui.wait_for(what, async || {
        ui.has("//h1 | //h2[contains(@class, 'text-verdict')]").await && holds(&ui.text("//main").await)
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_shell_begins_from_a_build_and_says_what_each_takes() {
    ui("cases", async |ui| {
        ui.open("/orders").await;
        ui.click("//button[starts-with(., 'Shells with a filling')]").await;
        headline_that(ui, "what is open", |said| said.contains("has no formula yet")).await;
        ui.click("//*[@role='tab'][.='Build']").await;
        let place = |word: &str| format!("//ul[starts-with(@aria-label, 'Places of tier 1')]//button[contains(., '{word}')]");
        ui.click(&place("Filling")).await;
        ui.click("//section[@aria-label='What is selected']//label[starts-with(., 'Formula')]//option[.='Sharp-citrus curd']").await;
        ui.find(&place("g in each of 12")).await;
        ui.find("//*[contains(., 'softens') and contains(., 'after it is filled')]").await;
        // Thicker than its tin: said at its place, mended by one press, undone by one.
        ui.click(&place("Case")).await;
        ui.write("//section[@aria-label='What is selected']//input[@id=//label[starts-with(., 'Wall')]/@for] | //section[@aria-label='What is selected']//label[starts-with(., 'Wall')]//input", "40").await;
        ui.press(fantoccini::key::Key::Tab).await;
        headline_that(ui, "that nothing is left", |said| said.contains("leaves nothing to fill")).await;
        ui.click("//button[starts-with(., 'Set both to 3 mm')]").await;
        headline_that(ui, "that it holds again", |said| !said.contains("leaves nothing to fill")).await;
        // More of them are more of it.
        ui.click("//button[starts-with(., 'Tier 1:')]").await;
        ui.write("//input[@id=//label[.='Equal pieces']/@for]", "30").await;
        ui.press(fantoccini::key::Key::Tab).await;
        ui.find(&place("g in each of 30")).await;
        // A film in it is one more place.
        ui.click("//select[@aria-label='Add to tier 1']/option[.='Film in the case']").await;
        ui.find(&place("Film 0.4 mm")).await;
        ui.click("//button[.='Undo']").await;
        ui.wait_for("no film", async || !ui.has(&place("Film 0.4 mm")).await).await;
        ui.click("//nav[@aria-label='Views of the order']//button[.='Order']").await;
        ui.write("//label[starts-with(., 'Name')]/input", "Shells for the fair").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 1, saved')]").await;
        ui.click("//nav[@aria-label='Views of the order']//button[.='To weigh']").await;
        ui.find("//article[@aria-label='Sharp-citrus curd']//*[contains(., '30 fillings of')]").await;
    })
    .await;
}
