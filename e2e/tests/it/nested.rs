//! Creams made of creams on the page: found by typing, held, opened, and what a change of one does to the others.

use crate::SAVE;
use e2e::{Ui, ui};

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_cream_of_this_kitchen_goes_into_another() {
    ui("nested", async |ui| {
        ui.open_formula("Feast diplomat").await;
        ui.verdict_that("is right", |words| words.starts_with("Right")).await;
        ui.find("//li[.//button[@aria-label='Swap Daily pastry cream']]//*[contains(., 'made here')]").await;
        ui.find(
            "//section[@aria-label='Made first']//summary[contains(., 'Make 720 g of Daily pastry cream for Feast diplomat.')]",
        )
        .await;
        // By typing, like anything of the pantry.
        ui.click("//*[@id='add-ingredient']").await;
        ui.write("//input[@aria-label='Add an ingredient']", "hay").await;
        ui.find("//*[@role='option'][contains(., 'Hay-milk') and contains(., 'made here')]").await;
        ui.click("//*[@role='option'][contains(., 'Hay-milk')]").await;
        ui.write(&Ui::amount("Hay-milk custard sauce"), "50 g").await;
        ui.find("//summary[contains(., 'Make 50 g of Hay-milk custard sauce')]").await;
        // Held at what it is, and opened.
        ui.click("//button[@aria-label='More for Hay-milk custard sauce']").await;
        ui.click("//*[@role='menuitem'][.='Hold it at version 1']").await;
        ui.find("//li[contains(., 'held at version 1')]").await;
        ui.click("//button[@aria-label='More for Hay-milk custard sauce']").await;
        ui.click("//*[@role='menuitem'][contains(., 'Open it')]").await;
        ui.find("//button[@aria-label='Swap Whole milk 3.5 %']").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_a_change_reaches_is_shown_before_it_is_saved() {
    ui("reaches", async |ui| {
        ui.open_formula("Daily pastry cream").await;
        ui.verdict_that("is right", |words| words.starts_with("Right")).await;
        ui.write(&Ui::amount("Corn starch"), "20 g").await;
        ui.find("//section[@aria-label='What saving changes']//li[contains(., 'Almond mousseline') and contains(., 'looser')]").await;
        // It cannot be made of what is made of it.
        ui.click("//*[@id='add-ingredient']").await;
        ui.write("//input[@aria-label='Add an ingredient']", "feast").await;
        ui.find("//*[@role='option'][@aria-disabled='true'][contains(., 'has this one in it already')]")
            .await;
        ui.client
            .find(fantoccini::Locator::XPath("//input[@aria-label='Add an ingredient']"))
            .await
            .unwrap()
            .send_keys("\u{e00c}")
            .await
            .unwrap();
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_file_with_a_cream_that_is_other_here_asks_once_which_to_use() {
    ui("which", async |ui| {
        ui.open_formula("Almond mousseline").await;
        let export = "const id = location.pathname.split('/').pop();
            return fetch(`/api/components/${id}/export?form=json`).then((answer) => answer.text())";
        let file = ui.js(export).await.as_str().unwrap().to_owned();
        let dir = tempfile::tempdir().unwrap();
        let give = async |name: &str, text: &str| {
            let path = dir.path().join(name);
            std::fs::write(&path, text).unwrap();
            ui.open("/formulas").await;
            let field = ui.find("//input[@aria-label='Formula file']").await;
            field.send_keys(path.to_str().unwrap()).await.unwrap();
        };
        // The same as here: nothing to ask.
        give("same.json", &file.replace("Almond mousseline", "Mousseline again")).await;
        ui.find("//input[@aria-label='Name of the formula'][@value='Mousseline again']").await;
        // Other than here: asked once, and the one of the file stands beside ours.
        let other = file.replace("\"44 g\"", "\"61 g\"").replace("Almond mousseline", "Mousseline from away");
        assert_ne!(other.replace("Mousseline from away", "Almond mousseline"), file);
        give("other.json", &other).await;
        ui.find("//*[@role='dialog'][contains(., 'Daily pastry cream is here already')]").await;
        ui.click("//button[contains(., 'Use the file')]").await;
        ui.find("//input[@aria-label='Name of the formula'][@value='Mousseline from away']").await;
        ui.find("//section[@aria-label='Made first']//summary[contains(., 'Daily pastry cream')]").await;
        ui.click("//section[@aria-label='Made first']//summary").await;
        // 730 g of 746: the starch of the file, not of this kitchen.
        ui.find(
            "//section[@aria-label='Made first']//tr[contains(., 'Corn starch') and contains(., '59.7 g')]",
        )
        .await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_is_boiled_down_is_counted_as_it_is_left() {
    ui("boiled", async |ui| {
        ui.open_formula("Brandy soak").await;
        ui.verdict_that("is there", |_| true).await;
        ui.press('c').await;
        ui.click("//*[@role='tab'][.='Over a ring']").await;
        ui.find("//*[@role='dialog']//h3[contains(., 'Stop when the scale shows')]").await;
        ui.find("//*[@role='dialog']//p[contains(., 'grain')]").await;

        ui.click("//button[.='Count with what is left']").await;
        ui.find("//*[@role='dialog']//p[contains(., 'counts with what is left')]").await;
        ui.press(fantoccini::key::Key::Escape).await;
        ui.find("//p[contains(., 'boiled to 118 °C') and contains(., 'are left of')]").await;

        ui.click("//button[.='Undo']").await;
        ui.wait_for("all that is weighed", async || !ui.has("//p[contains(., 'boiled to 118 °C')]").await)
            .await;
        // One line of it, by half.
        ui.click("//button[@aria-label='More for Water']").await;
        ui.click("//*[@role='menuitem'][.='Strain, steep, boil down…']").await;
        ui.write("//*[@role='dialog']//input[@id=//label[contains(., 'Boiled down')]/@for]", "50 %").await;
        ui.click("//*[@role='dialog']//button[.='Count with what is left']").await;
        ui.find("//p[contains(., 'Water, boiled down by half')]").await;
    })
    .await;
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_is_drained_goes_one_way_and_its_liquid_another() {
    ui("drained", async |ui| {
        ui.open_formula("Brandy soak").await;
        ui.verdict_that("is there", |_| true).await;
        ui.click("//button[.='Strain or boil it down']").await;
        ui.click("//*[@role='dialog']//select/option[contains(., 'only the liquid is kept')]").await;
        // What is no amount is said at its field, and what is typed stays.
        ui.write("//*[@role='dialog']//input[@id=//label[contains(., 'Kept of it')]/@for]", "most").await;
        ui.click("//*[@role='dialog']//button[.='Count with what is left']").await;
        ui.find("//*[@role='dialog']//*[contains(., 'Write what the scale shows')]").await;
        ui.write("//*[@role='dialog']//input[@id=//label[contains(., 'Kept of it')]/@for]", "70 %").await;
        ui.click("//*[@role='dialog']//button[.='Count with what is left']").await;
        ui.find("//p[contains(., 'its liquid kept') and contains(., 'stay behind')]").await;
        // A line of it by taste stands beside the shares.
        ui.click("//button[@aria-label='More for Water']").await;
        ui.click("//*[@role='menuitemcheckbox'][contains(., 'Added by taste')]").await;
        ui.find("//li//p[contains(., 'by taste')]").await;
        ui.click(SAVE).await;
        ui.find("//*[@role='status'][contains(., 'version 2, saved')]").await;
        ui.open_formula("Daily pastry cream").await;
        ui.click("//*[@id='add-ingredient']").await;
        ui.write("//input[@aria-label='Add an ingredient']", "brandy soak").await;
        ui.click("//*[@role='option'][contains(., 'Brandy soak: what was drained')]").await;
        ui.write(&Ui::amount("Brandy soak: what was drained"), "30 g").await;
        ui.find("//summary[contains(., 'of Brandy soak: 30 g of what was drained for Daily pastry cream')]")
            .await;
    })
    .await;
}
